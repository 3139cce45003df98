/** Content built by page scripts, which isn't in the source. */
import { decodeFragment, fragmentOf, PIECE } from '@waybell/core/contract'
import type { BuiltMenu, BuiltTarget, Survey } from '@waybell/core/survey'
import { hashOfLink, targetOf } from '../links/follow.ts'
import { topOf } from '../page/scroller.ts'
import { elementAt, positionOf } from '../page/stamps.ts'

const MOST = 50
const MOST_MENUS = 10

// The root and drawings aren't in the source either.
const isBuilt = (el: Element): boolean => positionOf(el) === undefined && !el.matches('html, body') && !el.closest(`svg, [${PIECE}]`)
const wordsOf = (el: Element): string => (el.textContent ?? '').trim().replace(/\s+/g, ' ')

/** A link's hash, if it leads to this page. */
export function placeHash(link: Element): string | null {
  const hash = hashOfLink(link)
  return hash !== null && hash.length > 1 ? hash : null
}

export interface BuiltLinks {
  menu: Element
  links: HTMLAnchorElement[]
}

/** True when most of an element's text is these links. */
const isMostly = (el: Element, links: readonly Element[]): boolean =>
  links.reduce((n, a) => n + wordsOf(a).length, 0) >= wordsOf(el).length / 2

function menuAround(link: Element): Element {
  const nav = link.closest('nav, [role="navigation"]')
  if (nav) return nav
  let list = link.closest('ul, ol')
  for (let up = list; up; up = up.parentElement?.closest('ul, ol') ?? null) list = up
  return list ?? link.closest('header, footer, aside') ?? link.parentElement!
}

/** Menus of links built by scripts, in page order. @param known other menus; their content is theirs */
export function builtMenus(known: readonly Element[]): BuiltLinks[] {
  const groups = new Map<Element, HTMLAnchorElement[]>()
  for (const link of document.querySelectorAll<HTMLAnchorElement>('a[href]')) {
    if (!isBuilt(link) || placeHash(link) === null || !wordsOf(link)) continue
    const menu = menuAround(link)
    if (known.some((m) => m.contains(menu) || menu.contains(m))) continue
    groups.set(menu, [...(groups.get(menu) ?? []), link])
  }
  return [...groups]
    .filter(([menu, links]) => links.length > 1 && menu !== document.body && isMostly(menu, links))
    .slice(0, MOST_MENUS)
    .map(([menu, links]) => ({ menu, links: links.slice(0, MOST) }))
}

/** The source element for a menu: itself, or one around it with little else. */
function placeOf({ menu, links }: BuiltLinks, found: readonly Element[]): number | null {
  for (let e: Element | null = menu; e && e !== document.body; e = e.parentElement) {
    const at = positionOf(e)
    if (at === undefined) continue
    const holds = (el: Element | null) => el !== null && e!.contains(el)
    return links.some((a) => holds(targetOf(placeHash(a)!))) || found.some(holds) || !isMostly(e, links) ? null : at
  }
  return null
}

/** @param menus of the source */
export function builtByScripts(menus: readonly number[]): Omit<Survey['built'], 'targets'> {
  const found = menus.flatMap((at) => elementAt(at) ?? [])
  const headings = new Set<string>()
  for (const el of document.querySelectorAll('h1, h2, h3, h4, h5, h6, [role="heading"]'))
    if (headings.size < MOST && isBuilt(el) && el.getClientRects().length && wordsOf(el)) headings.add(wordsOf(el).slice(0, 120))
  return {
    headings: [...headings],
    menus: builtMenus(found).map((built): BuiltMenu => ({
      at: placeOf(built, found),
      links: built.links.map((link) => {
        const target = targetOf(placeHash(link)!)
        return {
          label: wordsOf(link).slice(0, 120),
          href: link.getAttribute('href')!.slice(0, 2000),
          target: (target && positionOf(target)) ?? null,
          arrives: target !== null,
        }
      }),
    })),
  }
}

/** Link targets built by scripts. @param movedBy px that the page loses above a position after scrolling */
export function builtTargets(movedBy: (top: number) => number): BuiltTarget[] {
  const out = new Map<Element, BuiltTarget>()
  for (const link of document.querySelectorAll('a[href]')) {
    const hash = placeHash(link)
    const target = hash === null ? null : targetOf(hash)
    if (!target || out.has(target) || out.size >= MOST || !isBuilt(target) || !target.getClientRects().length) continue
    const top = topOf(target)
    out.set(target, {
      id: decodeFragment(fragmentOf(hash!)),
      top,
      bottom: top + target.getBoundingClientRect().height,
      movedTop: top + movedBy(top),
    })
  }
  return [...out.values()].sort((a, b) => a.top - b.top)
}
