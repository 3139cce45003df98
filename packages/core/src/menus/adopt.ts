/** Adopts the page's own menus. */
import { formOf } from './form-of.ts'
import { isOfPage, leadsHome, matchLinks, meansHome, pointNamed, type Meaning } from '../links/index.ts'
import type { ElementAt, PageLink, PageReading, ReadMenu } from '../page/index.ts'
import { readMade } from '../contract/index.ts'
import { FOUND_STATES } from './forms/form.ts'
import { readLook } from './look.ts'
import { isFound, isMade, type Item, type ItemTarget, type Menu, type MenuLook, type Section } from '../site/index.ts'

/** A menu in one element, or in several with the same links. */
export interface MatchedMenu {
  elements: ReadMenu[]
  /** The element with most links. */
  first: ReadMenu
  /** What its links mean. */
  matches: Map<PageLink, Meaning>
}

const nameOf = ({ href, label }: PageLink): string => JSON.stringify([href, label])

/**
 * The page's menus with the targets of their items.
 * @param files of the site, relative to the page's folder, to tell files from addresses without `#`
 * @param built IDs built by scripts
 */
export function pageMenus(reading: PageReading, files: ReadonlySet<string>, built: ReadonlySet<string> = new Set()): MatchedMenu[] {
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const linksOf = (menu: ReadMenu) => menu.links.flatMap((at) => links.get(at) ?? [])
  const sayings = new Map<string, ReadMenu[]>()
  for (const menu of reading.menus.filter((m) => m.place !== 'text')) {
    // Menus for wide and narrow screens are one; links that lead away may be in just one of them.
    const within = linksOf(menu).filter((l) => !['outside', 'other-page', 'button', 'group'].includes(l.status))
    const says = JSON.stringify([menu.place, within.length ? within.map(nameOf) : linksOf(menu).map(nameOf)])
    sayings.set(says, [...(sayings.get(says) ?? []), menu])
  }
  return [...sayings.values()].flatMap((elements): MatchedMenu[] => {
    const first = [...elements].sort((a, b) => b.links.length - a.links.length)[0]
    const own = linksOf(first!)
    if (!isOfPage(first!, own)) return []
    // Other links in a footer rarely mean sections, and in a handed-over page all was decided.
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
    /** The same link in another element; each belongs to one item. */
    const twin = (element: ReadMenu, link: PageLink): ElementAt[] => {
      const own = left.get(element)!
      const found = own.findIndex((l) => nameOf(l) === nameOf(link))
      return found < 0 ? [] : own.splice(found, 1).map((l) => l.at)
    }
    const items = first.links.map((at, n): Item => {
      const link = links.get(at)!
      const meaning = matches.get(link)
      const point = pointNamed(link, sections)
      const section = point ?? byAt.get(meaning?.candidate.at ?? -1)
      return {
        key: `${key}-${n}`,
        label: link.label,
        target: targetOf(link, section),
        links: elements.flatMap((e) => (e === first ? [at] : twin(e, link))),
        ...motionBefore(reading, [at]),
        ...((section ? !point && meaning!.isLikely : meansHome(link)) ? { assumed: true as const } : {}),
      }
    })
    const name = first.label || (first.place === 'footer' ? 'Footer menu' : 'Header menu')
    const look = elements.map((e) => lookBefore(reading.written.looks[e.at])).find((l) => l !== null)
    const shutBy = elements.map((e) => reading.written.shutBy[e.at]).find((by) => by !== undefined)
    const form = { kind: 'found' as const, elements: elements.map((e): ElementAt => e.at), ...(shutBy !== undefined && { shutBy }) }
    return { key, name, form, ...(look && { look }), ...motionBefore(reading, form.elements), items }
  })
}

/** The motion that an earlier handover wrote. */
function motionBefore({ written }: PageReading, elements: readonly ElementAt[]): Pick<Item, 'motion'> {
  const motion = elements.map((at) => written.motions[at]).find((m) => m)
  return motion ? { motion } : {}
}

/** Item states that an earlier handover wrote. */
function lookBefore(text: string | undefined): MenuLook | null {
  const { states } = readLook(readMade(text ?? '')?.words ?? {}) ?? {}
  const given = FOUND_STATES.flatMap((s) => (states?.[s] ? [[s, states[s]] as const] : []))
  return given.length ? { states: Object.fromEntries(given) } : null
}

/** The target of a found item: its section, or its own address. Nothing falls back to the top. */
export const targetOf = (link: PageLink, section: Section | undefined): ItemTarget =>
  section
    ? { kind: 'section', section: section.key }
    : (link.status === 'top' && leadsHome(link)) || meansHome(link)
      ? { kind: 'top' }
      : { kind: 'as-is' }

/** Depth of each item: as nested in a made menu; by lists around it in a found one, 0 for added items. */
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
