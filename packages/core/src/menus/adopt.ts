/** Menus that a page has in its header, taken over with their own markup. */
import { matchLinks } from '../links/index.ts'
import type { Candidate, ElementAt, PageLink, PageReading, ReadMenu } from '../page/index.ts'
import type { Item, ItemTarget, Menu, Section } from '../site/index.ts'

/** A menu that stands in one element, or in several that say the same. */
export interface MatchedMenu {
  elements: ReadMenu[]
  /** What the links of the first element mean. */
  matches: Map<PageLink, Candidate>
}

/** The section menus that the page has in its header, with what their items mean. */
export function headerMenus(reading: PageReading): MatchedMenu[] {
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const linksOf = (menu: ReadMenu) => menu.links.flatMap((at) => links.get(at) ?? [])
  const sayings = new Map<string, ReadMenu[]>()
  for (const menu of reading.menus.filter((m) => m.inHeader)) {
    // One for wide and one for narrow screens are one menu.
    const says = JSON.stringify(linksOf(menu).map(({ href, label }) => [href, label]))
    sayings.set(says, [...(sayings.get(says) ?? []), menu])
  }
  return [...sayings.values()]
    .map((elements) => ({ elements, matches: matchLinks(linksOf(elements[0]!), reading.candidates) }))
    .filter(({ matches }) => new Set(matches.values()).size >= 1 && matches.size >= Math.min(2, reading.candidates.length))
}

export function adoptMenus(reading: PageReading, found: readonly MatchedMenu[], sections: readonly Section[]): Menu[] {
  const byAt = new Map(sections.map((s) => [s.at, s]))
  const links = new Map(reading.links.map((l) => [l.at, l]))
  return found.map(({ elements, matches }, m): Menu => {
    const [first] = elements
    const key = `m${m + 1}`
    const items = first!.links.map((at, n): Item => {
      const link = links.get(at)!
      return {
        key: `${key}-${n}`,
        label: link.label,
        target: targetOf(link, byAt.get(matches.get(link)?.at ?? -1)),
        links: elements.map((e) => e.links[n]!),
      }
    })
    return { key, name: first!.label || 'Header menu', form: { kind: 'found', elements: elements.map((e): ElementAt => e.at) }, items }
  })
}

/** What an item of the page's own leads to: the section that it means, else what it leads to by itself. */
export const targetOf = (link: PageLink, section: Section | undefined): ItemTarget =>
  section ? { kind: 'section', section: section.key } : link.status === 'top' ? { kind: 'top' } : { kind: 'as-is' }
