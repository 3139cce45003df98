/** Pictures with sizes, found in the new version. */
import type { ElementAt } from '../page/index.ts'
import type { SitePage } from '../site/index.ts'
import type { PictureSize } from '../survey/index.ts'
import type { Version } from './version.ts'

/** Dropped if the file changed, or the page has a size now. */
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
