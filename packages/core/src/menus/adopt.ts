/** Menus that a page has, taken over with their own markup. */
import { formOf } from './form-of.ts'
import { isOfPage, leadsHome, matchLinks, meansHome, type Meaning } from '../links/index.ts'
import type { ElementAt, PageLink, PageReading, ReadMenu } from '../page/index.ts'
import { readMade } from '../contract/index.ts'
import { FOUND_STATES } from './forms/form.ts'
import { readLook } from './look.ts'
import { isFound, isMade, type Item, type ItemTarget, type Menu, type MenuLook, type Section } from '../site/index.ts'

/** A menu that stands in one element, or in several that say the same. */
export interface MatchedMenu {
  elements: ReadMenu[]
  /** The one that says most. */
  first: ReadMenu
  /** What its links mean. */
  matches: Map<PageLink, Meaning>
}

const nameOf = ({ href, label }: PageLink): string => JSON.stringify([href, label])

/**
 * The menus that the page has above, beside and below its content, with what their items mean.
 * @param files the site's files, from the page's folder, so that an address without its `#` is told from a file
 * @param built IDs of what the page's scripts build
 */
export function pageMenus(reading: PageReading, files: ReadonlySet<string>, built: ReadonlySet<string> = new Set()): MatchedMenu[] {
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const linksOf = (menu: ReadMenu) => menu.links.flatMap((at) => links.get(at) ?? [])
  const sayings = new Map<string, ReadMenu[]>()
  for (const menu of reading.menus.filter((m) => m.place !== 'text')) {
    // One for wide and one for narrow screens are one menu: what leads away may stand in one of them only.
    const within = linksOf(menu).filter((l) => !['outside', 'other-page', 'button', 'group'].includes(l.status))
    const says = JSON.stringify([menu.place, within.length ? within.map(nameOf) : linksOf(menu).map(nameOf)])
    sayings.set(says, [...(sayings.get(says) ?? []), menu])
  }
  return [...sayings.values()].flatMap((elements): MatchedMenu[] => {
    const first = [...elements].sort((a, b) => b.links.length - a.links.length)[0]
    const own = linksOf(first!)
    if (!isOfPage(first!, own)) return []
    // What a footer says beside that is rarely about sections, and of a page that was handed over everything was decided.
    const guess = first!.place === 'header' && !reading.written.settings
    return [{ elements, first: first!, matches: matchLinks(own, reading.candidates, { files, guess, built }) }]
  })
}

export function adoptMenus(reading: PageReading, found: readonly MatchedMenu[], sections: readonly Section[]): Menu[] {
  const byAt = new Map(sections.map((s) => [s.at, s]))
  const links = new Map(reading.links.map((l) => [l.at, l]))
  return found.map(({ elements, first, matches }, m): Menu => {
    const key = `m${m + 1}`
    const left = new Map(elements.filter((e) => e !== first).map((e) => [e, e.links.map((at) => links.get(at)!)]))
    /** The same link in another element; each is one item's. */
    const twin = (element: ReadMenu, link: PageLink): ElementAt[] => {
      const own = left.get(element)!
      const found = own.findIndex((l) => nameOf(l) === nameOf(link))
      return found < 0 ? [] : own.splice(found, 1).map((l) => l.at)
    }
    const items = first.links.map((at, n): Item => {
      const link = links.get(at)!
      const meaning = matches.get(link)
      const section = byAt.get(meaning?.candidate.at ?? -1)
      return {
        key: `${key}-${n}`,
        label: link.label,
        target: targetOf(link, section),
        links: elements.flatMap((e) => (e === first ? [at] : twin(e, link))),
        ...motionBefore(reading, [at]),
        ...((section ? meaning!.isLikely : meansHome(link)) ? { assumed: true as const } : {}),
      }
    })
    const name = first.label || (first.place === 'footer' ? 'Footer menu' : 'Header menu')
    const look = elements.map((e) => lookBefore(reading.written.looks[e.at])).find((l) => l !== null)
    const shutBy = elements.map((e) => reading.written.shutBy[e.at]).find((by) => by !== undefined)
    const form = { kind: 'found' as const, elements: elements.map((e): ElementAt => e.at), ...(shutBy !== undefined && { shutBy }) }
    return { key, name, form, ...(look && { look }), ...motionBefore(reading, form.elements), items }
  })
}

/** The motion that an earlier handover gave one of these elements. */
function motionBefore({ written }: PageReading, elements: readonly ElementAt[]): Pick<Item, 'motion'> {
  const motion = elements.map((at) => written.motions[at]).find((m) => m)
  return motion ? { motion } : {}
}

/** The look that an earlier handover gave states of its items. */
function lookBefore(text: string | undefined): MenuLook | null {
  const { states } = readLook(readMade(text ?? '')?.words ?? {}) ?? {}
  const given = FOUND_STATES.flatMap((s) => (states?.[s] ? [[s, states[s]] as const] : []))
  return given.length ? { states: Object.fromEntries(given) } : null
}

/** What an item of the page's own leads to: the section that it means, else what it leads to by itself. Nothing is sent to the top for want of better. */
export const targetOf = (link: PageLink, section: Section | undefined): ItemTarget =>
  section
    ? { kind: 'section', section: section.key }
    : (link.status === 'top' && leadsHome(link)) || meansHome(link)
      ? { kind: 'top' }
      : { kind: 'as-is' }

/** Of each item how deep it is nested: in a menu that is made as it is written, in one that the page has in how many lists of it it stands; what was added to that stands in none. */
export function itemDepths(menu: Menu, reading: PageReading): number[] {
  if (isMade(menu)) {
    const { levels } = formOf(menu.form)
    let before = -1
    return menu.items.map((i) => (before = Math.min(i.depth ?? 0, before + 1, levels - 1)))
  }
  const read = isFound(menu) ? reading.menus.find((m) => m.at === menu.form.elements[0]) : undefined
  const depths = new Map(read?.links.map((at, n) => [at, read.depths[n]!]))
  return menu.items.map((item) => depths.get(item.links[0] ?? -1) ?? 0)
}
