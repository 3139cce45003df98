/** The quick walk: each link of the menus is pressed once, and where the page stands a moment later is looked at. */
import {
  AWAY,
  decodeFragment,
  entryOf,
  fragmentOf,
  isElsewhere,
  MADE,
  madeMenuNamed,
  markClassOf,
  MENU,
  openersOf,
  readMade,
  WITHIN,
  type MarkClass,
} from '@waybell/core/contract'
import type { Stop, Tried } from '@waybell/core'
import { hashOfLink, isTopOnly, sameDocumentHash, targetOf, wasTaken } from './follow.ts'
import { isShown, lookOf, MARKING, underSheet } from './marks.ts'
import { builtMenus, placeHash } from '../survey/built.ts'
import type { KnownMenus } from '../messages.ts'
import { elementAt, positionOf } from '../page/stamps.ts'
import { furthest, jumpTo, position, scroller, viewTop } from '../page/scroller.ts'
import { canOpen, findOpeners, forgetOpenings, isAside, isLeftOpen, open, shut } from './opening.ts'
import { sizeProblems } from './item-size.ts'
import { withoutMotion } from '../page/motion.ts'
import { now, pause } from '../page/pending.ts'
import { moveTo, throughThePage, untilLoaded, untilQuiet, untilStill } from '../page/settle.ts'

interface ToTry {
  link: HTMLAnchorElement
  menu: Element
  hash: string
  /** The class by which the page marks the menu's items; null where that is `aria-current`, `none` where nothing marks them. */
  mark: MarkClass | null | 'none'
}

/** Drawn, or in a list that something opens: what is for other screens, beside links that are drawn, nobody can press. */
function canBePressed(link: Element, menu: Element): boolean {
  // What comes into view further down is pressed there.
  if (menu.hasAttribute(AWAY) || canOpen(menu)) return true
  if (isAside(menu)) return false
  return isShown(link) || isClosed(menu, [link]) || openersOf(link, menu).some(isShown)
}

type Menus = [menu: Element, mark: ToTry['mark']][]

/** In page order. */
function menusToTry({ marked }: KnownMenus): Menus {
  const marks = new Map<Element, ToTry['mark']>()
  for (const menu of document.querySelectorAll(`[${MENU}]`)) marks.set(menu, markClassOf(menu.getAttribute(MENU)))
  for (const { at, mark } of marked) {
    const menu = elementAt(at)
    if (menu) marks.set(menu, mark.name ? mark : null)
  }
  for (const steps of document.querySelectorAll(`[${MADE}]:not([${MENU}])`)) marks.set(steps, 'none')
  // What a script built, and is told by nothing of ours.
  for (const { menu } of builtMenus([...marks.keys()])) marks.set(menu, null)
  return [...marks].sort(([a], [b]) => (a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
}

/** Every link of a menu that stays on this page, in page order; those for another screen, which have no box here, are left out. */
function linksToTry(menus: Menus, { items }: KnownMenus): ToTry[] {
  const known = new Set(items)
  return menus.flatMap(([menu, mark]) =>
    [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].flatMap((link) => {
      // A bare “#” that is no item is mostly a script's button.
      const isItem = menu.hasAttribute(MADE) || known.has(positionOf(link) ?? -1)
      const hash = isItem ? hashOfLink(link) : placeHash(link)
      return hash !== null && canBePressed(link, menu) ? [{ link, menu, hash, mark }] : []
    }),
  )
}

/**
 * Null where there is no such link.
 * @param place among the links of the menus
 * @param isPatient gives the page longer: a machine that is busy is no fault of the link
 */
export async function tryLink(place: number, isPatient: boolean, known: KnownMenus): Promise<Tried | null> {
  // What scripts build behind the loading is in by then.
  if (place === 0) {
    await untilLoaded()
    await untilQuiet()
  }
  const menus = menusToTry(known)
  const motion = withoutMotion(notePutRight)
  let links: readonly ToTry[] = []
  try {
    if (place === 0) {
      forgetOpenings()
      await findOpeners(menus.map(([menu]) => menu))
    }
    links = linksToTry(menus, known)
    const one = links[place]
    if (!one) return null
    // What comes in on the way is in.
    if (place === 0) {
      await throughThePage()
      await untilQuiet()
    }
    return await pressed(one, isPatient)
  } finally {
    motion()
    if (place === links.length - 1) jumpTo(0)
  }
}

async function pressed(one: ToTry, isPatient: boolean): Promise<Tried> {
  const { link, menu, hash, mark } = one
  scroller().scrollTo({ left: 0, behavior: 'instant' })
  await moveTo(0)
  await untilQuiet(undefined, 'ended')
  const room = sizeProblems(link, menu)
  const target = targetOf(hash)
  const isTop = isTopTarget(hash)
  correctedFrom = null
  const overlay = await overlayLeftOver(link)
  const { stop, isTaken, isLeft } = await follow(one, isPatient)
  const tried: Tried = {
    at: positionOf(link) ?? null,
    label:
      (link.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 120) ||
      (link.getAttribute('aria-label') ?? link.querySelector('img')?.alt ?? ''),
    href: link.getAttribute('href')!,
    id: isTop ? '' : decodeFragment(fragmentOf(hash)),
    hasTarget: target !== null || isTop,
    hasBox: isTop || !!target?.getClientRects().length,
    leaves: isElsewhere(link.getAttribute('target') ?? document.querySelector('base[target]')?.getAttribute('target')),
    ...stop,
    below: null,
    overlay: overlay ? nameOf(overlay) : '',
    isSideways: Math.abs(scroller().scrollLeft) > innerWidth / 2,
    isLit: mark === 'none' || currentOf(menu, mark).some((a) => a === link || (sameDocumentHash(a) ?? a.getAttribute('href')) === hash),
    isSeen: mark === 'none' || menu.hasAttribute(AWAY) || looksApart(menu, mark),
    isAlone: mark === 'none' || !currentLike(menu, mark),
    isTaken,
    astray: isTaken && correctedFrom !== null ? correctedFrom - position() : 0,
    menu: madeNameOf(menu) ?? '',
    leftOpen: null,
    ...room,
  }
  if (!isLeft) return { ...tried, below: tried.hasTarget && tried.hasBox ? await fromBelow(one, isPatient) : null }
  const by = await shut(menu, link)
  return { ...tried, leftOpen: { menu: positionOf(menu) ?? null, by: (by && positionOf(by)) ?? null } }
}

/** The same link once more, from the page's end: headers come back on the way up, and what sticks stands elsewhere than it was measured. */
async function fromBelow(one: ToTry, isPatient: boolean): Promise<Stop> {
  await moveTo(furthest())
  await untilQuiet(undefined, 'ended')
  const { stop, isLeft } = await follow(one, isPatient)
  if (isLeft) await shut(one.menu, one.link)
  return stop
}

/** It leads to the page as a whole. */
function isTopTarget(hash: string): boolean {
  const target = targetOf(hash)
  return target ? target === document.body || target === document.documentElement : isTopOnly(hash)
}

/** Presses a link where the page stands, and waits until that is over. */
async function follow({ link, menu, hash }: ToTry, isPatient: boolean): Promise<{ stop: Stop; isTaken: boolean; isLeft: boolean }> {
  const isOpened = await open(menu, link)
  const overlay = overlayOver(link)
  const isTaken = await press(link)
  const isQuiet = await untilQuiet(isPatient ? 1200 : 250, undefined, isTaken ? LONGEST_TAKEN : undefined)
  // No event ends what a script of a page that never rests does: only time without movement tells.
  if (isTaken && !isQuiet) await untilStill(position, 700, LONGEST_TAKEN)
  const isLeft = isOpened && (await isLeftOpen(menu))
  // Its going may move what stays at the viewport's top, and the page behind that.
  if (isOpened && !isLeft && !(await untilQuiet())) await untilStill(position, 200, 2000)
  const target = isTopTarget(hash) ? null : targetOf(hash)
  const over = target ? coverOver(target, isLeft ? menu : null, overlay) : null
  const stop: Stop = {
    scroll: position(),
    top: target?.getClientRects().length ? target.getBoundingClientRect().top - viewTop() : null,
    isCovered: over !== null,
    coveredBy: over && over !== 'out' ? nameOf(over) : '',
  }
  return { stop, isTaken, isLeft }
}

/** How long a script of the page may take with a press, in ms. */
const LONGEST_TAKEN = 8000

/** As a visitor's press: what the page's scripts do with it is theirs. */
async function press(link: HTMLAnchorElement): Promise<boolean> {
  // What is held back until a visitor has come by is pressed all the same.
  link.removeAttribute('aria-disabled')
  link.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true, composed: true, view: window }))
  await pause(0)
  return wasTaken()
}

/** The links of a menu that are marked. */
const currentOf = (menu: Element, mark: MarkClass | null): HTMLAnchorElement[] =>
  [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].filter((a) => isMarked(a, menu, mark))

function isMarked(link: Element, menu: Element, mark: MarkClass | null): boolean {
  if (mark) return (mark.on === 'link' ? link : entryOf(link, menu)).classList.contains(mark.name)
  const current = link.getAttribute('aria-current')
  return current !== null && current !== 'false'
}

/** Another item is shown as the current one besides, by a class that is called so. */
function currentLike(menu: Element, mark: MarkClass | null): boolean {
  const current = currentOf(menu, mark)
  if (!current.length) return false
  const hosts = new Set(current.flatMap((a) => [a, entryOf(a, menu)]))
  const others = [...menu.querySelectorAll('a[href]')].filter((a) => !current.includes(a as HTMLAnchorElement) && isShown(a))
  return others.some((a) =>
    [a, entryOf(a, menu)].some((el) => !hosts.has(el) && [...el.classList].some((name) => MARKING.test(name)) && marksIt(el)),
  )
}

/** Without its class it would look otherwise. */
const marksIt = (el: Element): boolean =>
  underSheet('', () => {
    const had = el.getAttribute('class')!
    const look = () => [el, ...el.children].map(lookOf).join()
    const before = look()
    el.className = [...el.classList].filter((name) => !MARKING.test(name)).join(' ')
    const after = look()
    el.setAttribute('class', had)
    return before !== after
  })

/** It has no words and paints nothing, however high it is: it was put there to be a target. */
function isEmpty(el: Element): boolean {
  if (el.textContent?.trim() || el.matches(MEDIA) || el.querySelector(MEDIA)) return false
  return [el, ...el.querySelectorAll('*')].every((e) => {
    const { visibility, backgroundImage, backgroundColor, borderTopStyle } = getComputedStyle(e)
    const isClear = backgroundImage === 'none' && /^rgba\(.*, 0\)$|^transparent$/.test(backgroundColor) && borderTopStyle === 'none'
    return visibility === 'hidden' || isClear
  })
}
const MEDIA = 'img, svg, video, canvas, iframe, object, embed'

/** What a visitor sees of a target first, a heading in it or right behind it, else its first words: where it stands, and what holds it. */
function firstOf(target: Element): { box: DOMRect; of: Element } {
  const heading = target.matches('h1,h2,h3,h4,h5,h6') ? target : target.querySelector('h1,h2,h3,h4,h5,h6,[role=heading]')
  const of = heading ?? target
  const range = document.createRange()
  // An empty target stands for what comes behind it.
  const isClear = isEmpty(of)
  const words = document.createTreeWalker(isClear ? document.body : of, NodeFilter.SHOW_TEXT, {
    acceptNode: (n) =>
      n.nodeValue!.trim() && n.parentElement!.getClientRects().length ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
  })
  if (isClear) words.currentNode = of
  const first = words.nextNode()
  if (first) range.selectNodeContents(first)
  const box = first && range.getClientRects()[0]
  return box ? { box, of: first.parentElement! } : { box: of.getBoundingClientRect(), of }
}

/** At least this share of what is seen, each way. */
const VEIL = 0.8

/** What is laid over nearly all that is seen and over a link: as long as it is there, nobody can press that. */
function overlayOver(link: Element): Element | null {
  const { left, right, top, bottom, width } = link.getBoundingClientRect()
  if (!width) return null
  for (let e = document.elementFromPoint((left + right) / 2, (top + bottom) / 2); e && !e.contains(link); e = e.parentElement) {
    const box = e.getBoundingClientRect()
    if (getComputedStyle(e).position === 'fixed' && box.width >= innerWidth * VEIL && box.height >= innerHeight * VEIL) return e
  }
  return null
}

/** What does not go by itself; of each that is waited for once. */
const stayed = new WeakSet<Element>()

/**
 * The same once what is only there while the page loads has gone. It is removed, hidden or moved aside, with a transition or without. An
 * observer would have to watch everything that can do so, so this looks again and again.
 */
async function overlayLeftOver(link: Element, limit = 3000): Promise<Element | null> {
  const end = now() + limit
  let overlay = overlayOver(link)
  while (overlay && !stayed.has(overlay) && now() < end) {
    await pause(50)
    overlay = overlayOver(link)
  }
  if (overlay) stayed.add(overlay)
  return overlay
}

/**
 * What lies over a place: what stays at the viewport's top, was left open, or hides it; `out` where it is out of view, null where it can be seen.
 * @param overlay counts as gone
 */
function coverOver(target: Element, leftOpen: Element | null, overlay: Element | null): Element | 'out' | null {
  const { box, of } = firstOf(target)
  const [x, y] = [Math.min(box.left + Math.min(box.width, 40) / 2, innerWidth - 1), box.top + box.height / 2]
  if (y < 0 || y > innerHeight || box.right < 0 || box.left > innerWidth) return 'out'
  const over = document.elementsFromPoint(Math.max(0, x), y).find((e) => !overlay?.contains(e))
  for (let e: Element | null = over ?? null; e && e !== document.body; e = e.parentElement) {
    if (leftOpen && (leftOpen.contains(e) || (e.contains(leftOpen) && getComputedStyle(e).position !== 'static'))) return e
    // What holds the words themselves, and sticks or not, covers nothing of them.
    if (e.contains(of)) return null
    const { position } = getComputedStyle(e)
    if (position === 'fixed' || (position === 'sticky' && e.getBoundingClientRect().top <= parseFloat(getComputedStyle(e).top) + 1))
      return e
    if (!target.contains(e) && hides(e) && canBeRead(of)) return e
  }
  return null
}

/** Nothing of what is behind it is seen. */
function hides(el: Element): boolean {
  const { opacity, backgroundColor } = getComputedStyle(el)
  return parseFloat(opacity) === 1 && (el.matches('img, video, canvas, iframe') || backgroundColor.startsWith('rgb('))
}

/** Names for hashes may have words that nobody sees, wherever they stand. A measuring frame is transparent itself. */
const canBeRead = (el: Element): boolean =>
  el.checkVisibility({ visibilityProperty: true }) && getComputedStyle(el).opacity !== '0' && el.getBoundingClientRect().height > 2

/** Name of the made menu that an element belongs to; null for others. Step links carry it among their words. */
function madeNameOf(el: Element): string | null {
  const made = readMade(el.getAttribute(MADE) ?? '')
  return made && (el.getAttribute('aria-label') ?? made.words.name ?? '')
}

const nameOf = (el: Element): string => {
  const made = madeNameOf(el)
  if (made !== null) return madeMenuNamed(made)
  const [first] = el.classList
  return el.id ? `“#${el.id}”` : first ? `“.${first}”` : `the page’s ${el.localName}`
}

/** The current link stands in what holds most of the menu's links, and that is not shown. */
function isClosed(menu: Element, [current]: readonly Element[]): boolean {
  let hidden: Element = menu
  for (let e: Element | null = current ?? null; e && e !== menu && !isShown(e); e = e.parentElement) hidden = e
  return hidden.querySelectorAll('a[href]').length >= menu.querySelectorAll('a[href]').length / 2
}

/** The current link, or what holds it, looks unlike the same of the others. Where the menu has nothing to compare, it is taken to. */
function looksApart(menu: Element, mark: MarkClass | null): boolean {
  const all = currentOf(menu, mark)
  const current = all.filter(isShown)
  // In a list that is closed what opens it says it; a menu that is closed as a whole has nobody to say it to.
  if (!current.length) return [...menu.querySelectorAll(`[${WITHIN}]`)].some(isShown) || isClosed(menu, all) || !all.length
  const others = [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].filter(
    (a) => isShown(a) && !current.includes(a) && !a.matches(':hover, :focus'),
  )
  if (!others.length) return true
  return current.some((a) => {
    // With what stands around it, as far as that is its own.
    for (let [mine, theirs]: [Element | null, (Element | null)[]] = [a, others]; mine && mine !== menu;) {
      const look = lookOf(mine)
      if (theirs.every((el) => !el || lookOf(el) !== look)) return true
      mine = mine.parentElement
      theirs = theirs.map((el) => el?.parentElement ?? null)
      if (mine && theirs.some((el) => el === mine)) return false
    }
    return false
  })
}

/** Where a page stood that its own script had moved, when ours put it right; null where it did not. */
let correctedFrom: number | null = null
const notePutRight = (): void => void (correctedFrom ??= position())
