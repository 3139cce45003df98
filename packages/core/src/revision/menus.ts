/** A page's menus in its new version: each element matched once, each item by its link. */
import { matchLinks, pointNamed } from '../links/index.ts'
import { itemFor, targetOf } from '../menus/index.ts'
import type { ElementAt, PageLink, PageReading, ReadMenu } from '../page/index.ts'
import {
  endsWithout,
  freshKey,
  isFound,
  isMade,
  sectionOf,
  type FoundForm,
  type Item,
  type Menu,
  type Section,
  type SitePage,
} from '../site/index.ts'

type Links = ReadonlyMap<ElementAt, PageLink>
type FoundMenu = Menu & { form: FoundForm }

const linksBy = (reading: PageReading): Links => new Map(reading.links.map((l) => [l.at, l]))

export function revisedMenus(
  page: SitePage,
  before: PageReading,
  after: PageReading,
  sections: readonly Section[],
  /** An element's position in the new version; null if uncertain. */
  placeOf: (at: ElementAt) => ElementAt | null,
): Menu[] {
  const keys = new Set(sections.map((s) => s.key))
  const added = sections.filter((s) => !page.sections.some((o) => o.key === s.key))
  const found = page.menus.filter(isFound)
  const again = foundAgain(found, before, after)
  let hasMade = page.menus.some(isMade)
  return page.menus.flatMap((menu): Menu[] => {
    if (isMade(menu)) {
      const shown =
        menu.shown && endsWithout(menu.shown, page.sections, new Set(page.sections.flatMap((s) => (keys.has(s.key) ? [] : s.key))))
      const fresh = menu.grows === false ? [] : itemsFor(added, menu)
      return [{ ...menu, ...(shown && { shown }), items: [...menu.items.flatMap((i) => leading(i, keys)), ...fresh] }]
    }
    const elements = (menu as FoundMenu).form.elements.flatMap((at) => {
      const now = again.get(at)
      return now ? [{ was: at, now }] : []
    })
    const { shutBy: by } = (menu as FoundMenu).form
    const shutBy = by === undefined ? null : placeOf(by)
    if (elements.length)
      return [
        {
          ...menu,
          form: { kind: 'found', elements: elements.map((e) => e.now.at), ...(shutBy !== null && { shutBy }) },
          items: revisedItems(menu, elements, before, after, sections),
        },
      ]
    // A lost menu becomes a made one with the same items, unless there is one.
    if (hasMade) return []
    hasMade = true
    const items = menu.items.flatMap((i) => leading(i, keys)).map((i) => ({ ...i, links: [] }))
    return [{ ...menu, form: { kind: 'bar', place: 'top' }, items }]
  })
}

/** The item; null for one without a target in a made menu. */
const leading = (item: Item, sections: ReadonlySet<string>): Item[] => {
  const kept = keptItem(item, sections)
  return kept.target.kind === 'as-is' ? [] : [kept]
}

/** An item of a lost section gets its link's address. */
function keptItem(item: Item, sections: ReadonlySet<string>): Item {
  const section = sectionOf(item.target)
  return section === null || sections.has(section) ? item : { ...item, target: { kind: 'as-is' } }
}

function itemsFor(sections: readonly Section[], menu: Menu): Item[] {
  const taken = menu.items.map((i) => i.key)
  return sections.map((s): Item => {
    const key = freshKey(`${menu.key}-`, taken)
    taken.push(key)
    return itemFor(key, s)
  })
}

/** Matches a menu's elements to those with most of the same links; each is used once. */
function foundAgain(menus: readonly FoundMenu[], before: PageReading, after: PageReading): Map<ElementAt, ReadMenu> {
  const [was, now] = [linksBy(before), linksBy(after)]
  const labels = (links: readonly ElementAt[], by: Links) => links.flatMap((at) => by.get(at)?.label ?? [])
  const old = before.menus.filter((m) => menus.some((menu) => menu.form.elements.includes(m.at)))
  const pairs = old.flatMap((m, i) => {
    const own = new Set(labels(m.links, was))
    return after.menus.map((next, j) => ({
      m,
      next,
      shared: labels(next.links, now).filter((l) => own.has(l)).length,
      apart: Math.abs(i - j),
    }))
  })
  pairs.sort((a, b) => b.shared - a.shared || Number(b.next.place === 'header') - Number(a.next.place === 'header') || a.apart - b.apart)
  const out = new Map<ElementAt, ReadMenu>()
  const taken = new Set<ReadMenu>()
  for (const { m, next, shared } of pairs) {
    if (out.has(m.at) || taken.has(next) || (shared === 0 && next.place !== 'header')) continue
    out.set(m.at, next)
    taken.add(next)
  }
  return out
}

function revisedItems(
  menu: Menu,
  elements: readonly { was: ElementAt; now: ReadMenu }[],
  before: PageReading,
  after: PageReading,
  sections: readonly Section[],
): Item[] {
  const [was, now] = [linksBy(before), linksBy(after)]
  const keys = new Set(sections.map((s) => s.key))
  const byAt = new Map(sections.filter((s) => !s.point).map((s) => [s.at, s]))
  const taken = menu.items.map((i) => i.key)
  const out: Item[] = []
  for (const { was: element, now: next } of elements) {
    const own = new Set(before.menus.find((m) => m.at === element)?.links)
    const open = new Map(menu.items.flatMap((item) => item.links.flatMap((at) => (own.has(at) ? [[item, was.get(at)] as const] : []))))
    const take = (fits: (old: PageLink | undefined, item: Item) => boolean): Item | undefined => {
      const hit = [...open].find(([item, old]) => fits(old, item))?.[0]
      if (hit) open.delete(hit)
      return hit
    }
    const links = next.links.map((at) => now.get(at)!)
    const meant = matchLinks(links, after.candidates, { files: new Set(), guess: next.place === 'header' })
    for (const link of links) {
      const item =
        take((old) => old?.label === link.label && old.href === link.href) ??
        take((old) => old?.label === link.label) ??
        take((old, { label }) => old?.href === link.href && link.href.length > 1 && label !== '')
      const there = out.find((o) => (item ? o.key === item.key : o.label === link.label && !o.links.some((at) => next.links.includes(at))))
      if (there) there.links.push(link.at)
      else if (item) {
        const isPages = item.label === was.get(item.links.find((at) => own.has(at))!)?.label
        out.push({ ...keptItem(item, keys), links: [link.at], label: isPages ? link.label : item.label })
      } else {
        const key = freshKey(`${menu.key}-`, taken)
        taken.push(key)
        out.push({
          key,
          label: link.label,
          target: targetOf(link, pointNamed(link, sections) ?? byAt.get(meant.get(link)?.candidate.at ?? -1)),
          links: [link.at],
        })
      }
    }
  }
  return [...out, ...menu.items.filter((i) => !i.links.length).flatMap((i) => leading(i, keys))]
}
