/**
 * The script of a page whose header covers the same at every scroll position, whose layout isn't late, and whose scripts leave presses
 * alone: CSS lands its links, and the script marks the current item.
 */
import { bells, currentAt } from '@waybell/core/rule'
import { COVER, FOLLOWS, HEADER, LETS_GO, MADE_BAR, MENU, OWN_COVER, PIECE, type Settings } from '@waybell/core/contract'
import { all, root } from './elements.ts'
import { markByClass } from './parts/classes.ts'
import { markOpeners } from './parts/lists.ts'

const settings = JSON.parse(all(`script[${PIECE}="settings"]`)[0]!.textContent!) as Settings
const { sections } = settings
//#if header
const headers = all(`[${HEADER}]`)
//#end
const hashOf = (id: string) => new URL('#' + id, location.href).hash
/** IDs by hash. */
const named = new Map(sections.map((id) => [hashOf(id), id]))
//#if anchors
for (const { was, now } of settings.former) named.set(hashOf(was), now)
//#end

//#if tops
// The page's top counts as the section that starts there.
for (const hash of ['', '#top']) if (!named.has(hash)) named.set(hash, settings.toTop[0] ?? '')
//#end

/** The menus, each with its links on this page. */
const here = location.href.split('#')[0] + '#'
const menus = all(`[${MENU}]`).map((element) => ({
  element,
  items: all<HTMLAnchorElement>('a[href*="#"]', element)
    .filter((link) => link.href.startsWith(here))
    .map((link) => ({ link, id: named.get(link.hash) })),
  /** Null before it is known. */
  marked: null as HTMLElement | undefined | null,
}))

/** The sections shown, and the scroll position at which each becomes current, in that order. */
let shown: HTMLElement[] = []
let sorted: { index: number; bell: number }[] = []
/** The section whose item is marked. */
let current: string | undefined
/** The link followed last, and where the page came to rest; until it scrolls on from there. */
let followed: { id: string | undefined; link?: Element | undefined; at?: number } | undefined

//#if slides
/** A menu that scrolls sideways shows the item in its middle. */
function slideTo(link: HTMLElement, menu: HTMLElement) {
  const [outer, inner] = [menu.getBoundingClientRect(), link.getBoundingClientRect()]
  menu.scrollLeft += (inner.left + inner.right - outer.left - outer.right) / 2
}
//#end

/** Marks each menu's current item. */
function mark() {
  const id = followed?.id ?? shown[currentAt(sorted, scrollY)]?.id ?? ''
  if (id === current && !followed?.link) return
  current = id
  for (const menu of menus) {
    let meant = id
    //#if tops
    // Before a menu's first section, its link to the page's top is current.
    const order = sorted.map(({ index }) => shown[index]!.id)
    const first = order.findIndex((section) => menu.items.some((item) => item.id === section))
    if (order.indexOf(id) < first) meant = ''
    //#end
    const links = menu.items.filter((item) => item.id === meant).map((item) => item.link)
    // Of several, the one that was pressed, or names the section.
    const link = links.find((l) => l === followed?.link) ?? links.find((l) => l.hash === hashOf(meant)) ?? links[0]
    if (link === menu.marked) continue
    //#if classes
    markByClass(
      menu.element,
      link,
      menu.items.map((item) => item.link),
    )
    //#end
    for (const item of menu.items) item.link.removeAttribute('aria-current')
    link?.setAttribute('aria-current', 'true')
    //#if lists
    markOpeners(menu.element, link)
    //#end
    //#if slides
    if (link) slideTo(link, menu.element)
    //#end
    menu.marked = link
  }
}

//#if header
/** At other window and text sizes than those measured, the header may have another height. */
function measureHeader(): number {
  const edges = headers.map((header) => {
    const { position, top } = getComputedStyle(header)
    const edge = parseFloat(top) + header.getBoundingClientRect().height
    return /fixed|sticky/.test(position) && edge < innerHeight / 2 ? edge : 0
  })
  let covered = Math.max(0, ...edges)
  //#if bar
  root.style.setProperty(OWN_COVER, `${covered}px`)
  // The made bar is below, where it is shown.
  if (all(MADE_BAR).some((bar) => bar.getClientRects().length)) covered += settings.bar
  //#end
  root.style.setProperty(COVER, `${covered}px`)
  return covered
}
//#end

/** After each layout, before it is painted. */
function measure() {
  shown = sections.flatMap((id) => document.getElementById(id) ?? []).filter((section) => section.getClientRects().length)
  const tops = shown.map((section) => section.getBoundingClientRect().top + scrollY)
  //#if shifted
  // The page moved some targets up; their sections start below.
  shown.forEach((section, i) => {
    if (settings.shifted?.includes(section.id)) tops[i]! -= parseFloat(getComputedStyle(section).scrollMarginTop)
  })
  //#end
  let line = settings.bellOffset
  //#if header
  line += measureHeader()
  //#end
  sorted = bells(tops, line, document.scrollingElement!.scrollHeight - innerHeight)
  // The layout moved, not the visitor.
  if (followed?.at) followed.at = scrollY
  current = undefined
  mark()
}

/** Set while something scrolls, and a moment longer. */
let moving: ReturnType<typeof setTimeout> | undefined
function onScroll() {
  if (Math.abs(scrollY - (followed?.at ?? scrollY)) > 1) followed = undefined
  clearTimeout(moving)
  moving = setTimeout(() => {
    moving = undefined
    if (followed) followed.at = scrollY
  }, 300)
  mark()
}

/** A followed link's item is current on the way, and at the page's end, where several sections are in view. */
function follow(hash: string, link?: Element) {
  // Chromium follows no link while the page scrolls smoothly to another.
  if (moving) setTimeout(() => document.querySelector(':target')?.scrollIntoView())
  followed = { id: named.get(hash), link }
  onScroll()
}

const observer = new ResizeObserver(measure)
observer.observe(document.body)
//#if header
for (const header of headers) observer.observe(header)
//#end
for (const id of sections) observer.observe(document.getElementById(id) ?? document.body)

addEventListener('scroll', onScroll)
// The visitor moves on.
for (const hand of ['wheel', 'keydown', 'pointerdown']) addEventListener(hand, () => (followed = undefined), { passive: true })
addEventListener('click', ({ target }) => {
  const link = (target as Element).closest('a')
  if (link?.hash) follow(link.hash, link)
})
//#if anchors
/** A former ID in the address becomes the present one. */
function renew() {
  for (const { was, now } of settings.former) if (hashOf(was) === location.hash) location.replace(hashOf(now))
}
addEventListener('hashchange', renew)
renew()
//#end
addEventListener('hashchange', () => {
  // Back or forward, to where the visitor was.
  if (named.get(location.hash) !== followed?.id) followed = undefined
  mark()
})
// After a reload, the page is where the visitor left it.
const [arrival] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
if (arrival?.type === 'navigate') follow(location.hash)
//#if live
addEventListener(FOLLOWS, (event) => follow((event as CustomEvent<string>).detail), true)
addEventListener(LETS_GO, () => (followed = undefined), true)
//#end
