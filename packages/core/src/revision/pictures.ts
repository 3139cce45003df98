/** Pictures whose sizes were said, found again in a page's new version. */
import type { ElementAt } from '../page/index.ts'
import type { SitePage } from '../site/index.ts'
import type { PictureSize } from '../survey/index.ts'
import type { Version } from './version.ts'

/** Of another file, or where the page says a size by itself now, nothing is known. */
export function revisedPictures(
  { pictures = [] }: SitePage,
  before: Version,
  after: Version,
  placeOf: (at: ElementAt) => ElementAt | null,
): PictureSize[] {
  const attribute = ({ parsed }: Version, at: ElementAt, name: string) => parsed.byAt.get(at)?.attrs.get(name)
  const isOurs = (at: ElementAt) => after.reading.written.pictures.some((p) => p.at === at)
  const again = pictures.flatMap((picture): PictureSize[] => {
    const at = placeOf(picture.at)
    if (at === null || attribute(after, at, 'src') !== attribute(before, picture.at, 'src')) return []
    return isOurs(at) || ['width', 'height'].every((name) => attribute(after, at, name) === undefined) ? [{ ...picture, at }] : []
  })
  return again.sort((a, b) => a.at - b.at)
}
