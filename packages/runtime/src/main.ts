/**
 * The script of a handed-over page. It marks the current item and keeps `--wb-header` true: how much the header covers
 * on arrival. Links, offsets and smooth scrolling are CSS and work without it.
 *
 * Layout is read when it has changed, in one batch, or after a frame is drawn, when it is clean; never while the page scrolls.
 */
import { bells, currentAt } from '@waybell/core/rule'
import {
  COVER,
  decodeFragment,
  entryOf,
  fragmentOf,
  HEADER,
  markClassOf,
  MENU,
  openersOf,
  OWN_COVER,
  WITHIN,
  type MarkClass,
  type Settings,
} from '@waybell/core/contract'
import {
  all,
  coveredNow,
  elementOf,
  hasPlace,
  headerMoves,
  headerReach,
  isHere,
  maxScroll,
  renewHash,
  root,
  sectionOf,
  settings,
  tabFrom,
  TOP,
} from './page.ts'

/** A link that was followed keeps its item current until the visitor scrolls on. */
interface Pin {
  id: string
  link: Element | null
  /** Scroll position of the arrival, in px; undefined while under way. */
  at?: number
  /** The page's length when it stood there, in px. */
  length?: number
  /** The visitor took a hand. */
  disturbed?: boolean
  moved?: boolean
  /** How often to look again before a page that does not move has arrived. */
  patience: number
  corrections: number
  arrivedAt?: number
}

let s: Settings
interface Menu {
  menu: HTMLElement
  links: { link: HTMLAnchorElement; id: string; isTop: boolean }[]
  /** Links in it, others too: a script may add some. */
  count: number
  /** Sections before the first that it leads to: there the page is at its top, as far as this menu goes. */
  opening: Set<string>
  /** The class by which the page marks an item. */
  own: MarkClass | null
  /** The link that is marked, undefined for none; null where that is not known. */
  shown?: HTMLAnchorElement | undefined | null
}
let menus: Menu[]
let sorted: { index: number; bell: number }[] = []
let ids: string[] = []
let pin: Pin | null = null
let width = -1
let rest = 0
let change = 0
/** True until the header's states were seen, where nobody measured them before. */
let learning = false
/** When the page was first seen at its top again. */
let backAt: number | undefined
let cover = 0
let resizing = false
let ticking = false
/** The hash that was asked for on this page and is to come. */
let asked: string | null = null
/** What the browser does now is a movement through the history, as far as it says. */
let traverses = false

const observer = new ResizeObserver(() => {
  clearTimeout(headerTimer)
  headerTimer = setTimeout(settle, 100)
  measure()
})
/**
 * A script of the page that marks items too has them marked as they are to be: never two at once; links that it adds are taken in. Once in a frame at most, so that two who
 * answer each other keep nobody waiting.
 */
let watching = false
const watcher = new MutationObserver(() => {
  if (watching) return
  watching = true
  requestAnimationFrame(() => {
    watching = false
    if (menus.some(({ menu, count }) => linksIn(menu).length !== count)) return read()
    for (const m of menus) m.shown = null
    mark()
  })
})
let headerTimer: ReturnType<typeof setTimeout>
let arrivalTimer: ReturnType<typeof setTimeout>

const linksIn = (menu: HTMLElement) => all<HTMLAnchorElement>('a[href]', menu)

function read(): void {
  s = settings()
  watcher.disconnect()
  menus = all(`[${MENU}]`).map((menu) => ({
    menu,
    own: markClassOf(menu.getAttribute(MENU)),
    shown: null,
    opening: new Set(),
    count: linksIn(menu).length,
    links: linksIn(menu).flatMap((link) => {
      const id = isHere(link) ? sectionOf(link.getAttribute('href')!, s) : undefined
      return id === undefined ? [] : [{ link, id, isTop: !s.sections.includes(decodeFragment(fragmentOf(link.hash))) }]
    }),
  }))
  width = -1
  observer.disconnect()
  for (const el of [root, document.body, ...all(`[${HEADER}], [${MENU}]`), ...s.sections.map(elementOf)])
    if (el) observer.observe(el, { box: 'border-box' })
  for (const { menu } of menus) watcher.observe(menu, { subtree: true, childList: true, attributeFilter: ['class', 'aria-current'] })
  settle()
}

/** Tells the header's states apart: what it covers on arrival changes with the layout, never with the scroll position. */
function settle(): void {
  const now = headerReach()
  if (now !== null) {
    const resized = width !== innerWidth
    if (resized) {
      width = innerWidth
      const measured = s.shrink.find(([widest]) => width <= widest)?.[1] ?? null
      learning = measured === null
      change = measured ?? 0
      rest = scrollY > 0 ? now - change : now
    } else if (headerMoves()) {
      // Its end is told.
    } else if (scrollY <= 0) {
      // Where it just came back to the top it may not have begun to grow.
      const isAsMoved = change !== 0 && Math.abs(now - rest - change) < 1
      backAt ??= performance.now()
      if (isAsMoved && performance.now() - backAt < 500) headerTimer = setTimeout(settle, 600)
      else rest = now
    } else if (Math.abs(now - rest - change) >= 1 && !(change && Math.abs(now - rest) < 1)) {
      // Neither of its states: it shrinks and nobody knew, or its layout is another, a menu opened in it say.
      if (learning && now < rest) change = now - rest
      else rest = now - change
    }
    cover = rest + change + s.bar
    root.style.setProperty(COVER, `${cover}px`)
    if (s.bar) root.style.setProperty(OWN_COVER, `${rest + change}px`)
  } else cover = parseFloat(getComputedStyle(root).getPropertyValue(COVER)) || 0
  if (scrollY > 0) backAt = undefined
  resizing = false
  measure()
  correct()
}

function measure(): void {
  const placed = s.sections.flatMap((id) => {
    const el = elementOf(id)
    // What the page moved up, away from its block, begins where that does.
    const lift = el && s.shifted?.includes(id) ? parseFloat(getComputedStyle(el).scrollMarginTop) : 0
    return hasPlace(el) ? [{ id, top: el.getBoundingClientRect().top + scrollY - lift }] : []
  })
  ids = placed.map((p) => p.id)
  sorted = bells(
    placed.map((p) => p.top),
    cover + s.bellOffset,
    maxScroll(),
  )
  for (const { links, opening } of menus) {
    opening.clear()
    for (const { index } of sorted) {
      if (links.some((l) => l.id === ids[index])) break
      opening.add(ids[index]!)
    }
  }
  // A shift of the layout is no scroll of the visitor's; one that is still to be looked at may be.
  if (pin?.at !== undefined && !ticking) hold(pin)
  mark()
}

function hold(p: Pin): void {
  p.at = scrollY
  p.length = maxScroll()
}

/** True where the page did no more than shift with its own length, untouched: browsers keep what is seen in its place. */
const isShift = (p: Pin) => !p.disturbed && Math.abs(scrollY - p.at!) <= Math.abs(maxScroll() - p.length!) + 1

function mark(): void {
  const current = pin ? pin.id : (ids[currentAt(sorted, scrollY)] ?? TOP)
  for (const m of menus) {
    const { menu, links, own } = m
    // In a menu out of sight as well: one behind a button says it when it is opened.
    const isMeant = (id: string) => id === current || (id === TOP && m.opening.has(current))
    const meant = links.filter((l) => isMeant(l.id))
    const chosen = meant.find((l) => l.link === pin?.link) ?? meant.find((l) => !l.isTop) ?? meant[meant.length - 1]
    if (m.shown === chosen?.link) continue
    m.shown = chosen?.link
    if (own) markByClass(m, own)
    if (chosen && menu.scrollWidth > menu.clientWidth) {
      const [outer, inner] = [menu.getBoundingClientRect(), chosen.link.getBoundingClientRect()]
      menu.scrollLeft += (inner.left + inner.right - outer.left - outer.right) / 2
    }
    for (const { link } of links) link.removeAttribute('aria-current')
    for (const el of all(`[${WITHIN}]`, menu)) el.removeAttribute(WITHIN)
    if (!chosen) continue
    chosen.link.setAttribute('aria-current', 'true')
    for (const el of openersOf<Element>(chosen.link, menu)) el.setAttribute(WITHIN, '')
  }
  // What was done here is nothing that the page did.
  watcher.takeRecords()
}

/** The page's own class goes along. An item that leads elsewhere keeps it until one of ours is the current one. */
function markByClass({ menu, links, shown }: Menu, { on, name }: MarkClass): void {
  const hostOf = (link: HTMLElement) => (on === 'link' ? link : entryOf<HTMLElement>(link, menu))
  const chosen = shown && hostOf(shown)
  for (const link of shown ? linksIn(menu) : links.map((l) => l.link)) {
    const host = hostOf(link)
    // The entry around the chosen one's list says what the page has it say.
    if (host === chosen || !(chosen && host.contains(chosen))) host.classList.toggle(name, host === chosen)
  }
}

const channel = new MessageChannel()
channel.port1.onmessage = () => {
  ticking = false
  if (pin?.at !== undefined && Math.abs(scrollY - pin.at) > 1 && !resizing) {
    if (isShift(pin)) hold(pin)
    else pin = null
  }
  mark()
}

function onScroll(): void {
  // Without `scrollend`, an arrival is a pause.
  if (pin && pin.at === undefined) {
    pin.moved = true
    awaitArrival()
  }
  if (ticking) return
  ticking = true
  // Behind the frame, where layout is clean and reading the scroll position costs nothing.
  requestAnimationFrame(() => channel.port2.postMessage(0))
}

function awaitArrival(): void {
  clearTimeout(arrivalTimer)
  arrivalTimer = setTimeout(() => {
    // A busy page may not have begun to move yet.
    if (pin && pin.at === undefined && pin.patience-- > 0 && !isThere(1)) awaitArrival()
    else arrive()
  }, 200)
}

const isThere = (within: number) => Math.abs(wanted(pin!.id) - scrollY) <= within

function onScrollEnd(event: Event): void {
  if (event.target !== document || !pin || pin.at !== undefined) return
  // The end of an earlier motion, far from the place: this one is still to come.
  if (!pin.disturbed && !isThere(pin.moved ? 200 : 1)) awaitArrival()
  else arrive()
}

function arrive(): void {
  if (!pin || pin.at !== undefined) return
  if (pin.disturbed && !isThere(1)) pin = null
  else {
    hold(pin)
    pin.disturbed = false
    pin.arrivedAt = performance.now()
    tabFrom(pin.id, s)
    clearTimeout(arrivalTimer)
    arrivalTimer = setTimeout(correct, 80)
  }
  mark()
}

/** Where the page is to stop for a section, with the header as it is now. */
function wanted(id: string): number {
  if (id === TOP) return 0
  const el = elementOf(id)
  if (!hasPlace(el)) return scrollY
  const lack = headerMoves() ? 0 : Math.max(0, coveredNow() - cover)
  const offset = parseFloat(getComputedStyle(root).scrollPaddingTop) + parseFloat(getComputedStyle(el).scrollMarginTop)
  return Math.min(Math.max(0, Math.round(el.getBoundingClientRect().top + scrollY - offset - lack)), maxScroll())
}

/** The end of a smooth scroll is fixed at its start; what the page moved meanwhile is made good once it has arrived. */
function correct(): void {
  if (!pin || pin.at === undefined || pin.corrections > 2 || performance.now() - pin.arrivedAt! > 2000) return
  // A scroll that is still to be looked at may be the visitor's.
  if (ticking || Math.abs(scrollY - pin.at) > 1 || !hasPlace(elementOf(pin.id))) return
  const top = wanted(pin.id)
  if (Math.abs(top - scrollY) < 1) return
  pin.corrections++
  pin.at = top
  scrollTo({ top, behavior: 'instant' })
  hold(pin)
}

/** Engines that have it tell a movement through the history from other changes of the hash. */
const { navigation } = window as { navigation?: Navigation }

/**
 * A movement through the history is no arrival: the browser puts the page back to where the visitor left it, before the change of the
 * hash is told or after, and there it stays. An arrival is what was asked for here, or what the browser says is none such movement.
 */
function onHash(): void {
  const isArrival = location.hash === asked || (navigation && !traverses)
  asked = null
  if (!isArrival) letGo()
  else if (renewHash(s)) asked = location.hash
  else follow(location.hash, pin?.link ?? null)
}

function letGo(): void {
  clearTimeout(arrivalTimer)
  pin = null
  mark()
}

function follow(hash: string, link: Element | null): void {
  const id = sectionOf(hash, s)
  pin = id === undefined ? null : { id, link, patience: 8, corrections: 0 }
  if (pin) awaitArrival()
  mark()
}

function onClick(event: MouseEvent): void {
  const link = (event.target as Element).closest?.('a[href]') as HTMLAnchorElement | null
  if (!link || event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey || !isHere(link)) return
  const hash = '#' + fragmentOf(link.getAttribute('href')!)
  if (link.href.split('#')[0] !== location.href.split('#')[0]) {
    // A `base` sends the browser elsewhere; the link is meant for this page.
    event.preventDefault()
    location.hash = hash
  }
  asked = link.hash
  const isMoving = !!pin && pin.at === undefined
  follow(hash, link)
  if (isMoving) insist(event)
}

/** On its way to another place a browser may stay with that. Where the page's own script took the press, it is its own. */
function insist(event: Event): void {
  const id = pin?.id
  const go = () => {
    if (id === undefined || pin?.id !== id || pin.at !== undefined || event.defaultPrevented) return
    if (id === TOP) scrollTo({ top: 0 })
    else elementOf(id)?.scrollIntoView()
  }
  requestAnimationFrame(() => requestAnimationFrame(go))
}

const disturb = () => {
  if (pin) pin.disturbed = true
}

function start(): void {
  here.wayBell = true
  read()
  addEventListener('scroll', onScroll, { passive: true })
  addEventListener('scrollend', onScrollEnd)
  addEventListener('click', onClick, true)
  addEventListener('hashchange', onHash)
  navigation?.addEventListener('navigate', ({ navigationType }) => (traverses = navigationType === 'traverse'))
  // Between entries of one hash, no change of it is told.
  addEventListener('popstate', () => {
    if (navigation ? traverses : location.hash !== asked) letGo()
  })
  addEventListener('resize', () => {
    resizing = true
    clearTimeout(headerTimer)
    headerTimer = setTimeout(settle, 100)
  })
  for (const type of ['wheel', 'touchmove', 'keydown']) addEventListener(type, disturb, { passive: true })
  for (const type of ['transitionend', 'transitioncancel', 'animationend'])
    addEventListener(type, () => {
      clearTimeout(headerTimer)
      headerTimer = setTimeout(settle, 100)
    })
  document.addEventListener('waybell', read)
  const [loading] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
  // A reload goes back to where the visitor was, not to the hash.
  if (renewHash(s)) asked = location.hash
  else if (location.hash && loading?.type === 'navigate') {
    follow(location.hash, null)
    addEventListener('load', awaitArrival)
  }
}

const here = document as Document & { wayBell?: boolean }
// Put into a page in which it runs already, it looks at what is new there, and is not there twice.
if (here.wayBell) here.dispatchEvent(new Event('waybell'))
else if (document.readyState === 'loading') addEventListener('DOMContentLoaded', start)
else start()
