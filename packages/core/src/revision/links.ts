/** Links outside the menus that were given a target, found again in a page's new version. */
import { canBeLink } from '../page/index.ts'
import type { ElementAt, PageLink, PageReading } from '../page/index.ts'
import { sectionOf, type LinkChoice, type Section, type SitePage } from '../site/index.ts'
import type { Version } from './version.ts'

const nameOf = ({ href, label }: PageLink) => JSON.stringify([href, label])

/** Each by what it says and asks for; of several alike by which of them it is. What leads to a section that is lost is left as it is. */
export function revisedLinks(
  page: SitePage,
  { reading: before }: Version,
  { reading: after, parsed }: Version,
  sections: readonly Section[],
  /** Where an element stands then; null where that is not plain. */
  placeOf: (at: ElementAt) => ElementAt | null,
): LinkChoice[] {
  const keys = new Set(sections.map((s) => s.key))
  const alike = (reading: PageReading, name: string) => reading.links.filter((l) => nameOf(l) === name)
  const choices = (page.links ?? []).flatMap(({ at, target, made }): LinkChoice[] => {
    if (made) {
      const to = placeOf(at)
      const led = sectionOf(target)
      const fits = to !== null && (led === null || keys.has(led)) && canBeLink(parsed, to, made.of, made.label)
      return fits ? [{ at: to, target, made }] : []
    }
    const was = before.links.find((l) => l.at === at)
    const section = sectionOf(target)
    if (!was || (section !== null && !keys.has(section))) return []
    const [then, now] = [alike(before, nameOf(was)), alike(after, nameOf(was))]
    const found = then.length === now.length ? now[then.indexOf(was)] : undefined
    return found ? [{ at: found.at, target }] : []
  })
  return choices.sort((a, b) => a.at - b.at)
}
