/** Links outside the menus that were given a target or a motion, found again in a page's new version. */
import { canBeLink } from '../page/index.ts'
import type { ElementAt, PageLink, PageReading } from '../page/index.ts'
import { sectionOf, type LinkChoice, type LinkMotion, type Section, type SitePage } from '../site/index.ts'
import type { Version } from './version.ts'

const nameOf = ({ href, label }: PageLink) => JSON.stringify([href, label])

const alike = (reading: PageReading, name: string) => reading.links.filter((l) => nameOf(l) === name)

/** Null where that is not plain. */
function linkAgain(at: ElementAt, before: PageReading, after: PageReading): ElementAt | null {
  const was = before.links.find((l) => l.at === at)
  if (!was) return null
  const [then, now] = [alike(before, nameOf(was)), alike(after, nameOf(was))]
  return then.length === now.length ? (now[then.indexOf(was)]?.at ?? null) : null
}

export const revisedMotions = ({ motions = [] }: SitePage, before: PageReading, after: PageReading): LinkMotion[] =>
  motions
    .flatMap(({ at, motion }): LinkMotion[] => {
      const to = linkAgain(at, before, after)
      return to === null ? [] : [{ at: to, motion }]
    })
    .sort((a, b) => a.at - b.at)

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
  const choices = (page.links ?? []).flatMap(({ at, target, made }): LinkChoice[] => {
    if (made) {
      const to = placeOf(at)
      const led = sectionOf(target)
      const fits = to !== null && (led === null || keys.has(led)) && canBeLink(parsed, to, made.of, made.label)
      return fits ? [{ at: to, target, made }] : []
    }
    const section = sectionOf(target)
    const to = section !== null && !keys.has(section) ? null : linkAgain(at, before, after)
    return to === null ? [] : [{ at: to, target }]
  })
  return choices.sort((a, b) => a.at - b.at)
}
