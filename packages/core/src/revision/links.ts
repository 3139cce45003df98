/** Links outside menus with a chosen target or motion, found in the new version. */
import { canBeLink } from '../page/index.ts'
import type { ElementAt, PageLink, PageReading } from '../page/index.ts'
import { sectionOf, type LinkChoice, type LinkMotion, type Section, type SitePage } from '../site/index.ts'
import type { Version } from './version.ts'

const nameOf = ({ href, label }: PageLink) => JSON.stringify([href, label])

const alike = (reading: PageReading, name: string) => reading.links.filter((l) => nameOf(l) === name)

/** Null if uncertain. */
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

/** Matches links by label and address, then by position. A link to a lost section keeps its address. */
export function revisedLinks(
  page: SitePage,
  { reading: before }: Version,
  { reading: after, parsed }: Version,
  sections: readonly Section[],
  /** An element's position in the new version; null if uncertain. */
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
