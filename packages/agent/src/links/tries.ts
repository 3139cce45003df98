/** The quick walk: follows each menu link once and reads where the page stopped, what covers the target and how the item is marked. */
import { AWAY, decodeFragment, fragmentOf, isElsewhere, MADE, markClassOf, MENU, openersOf, type MarkClass } from '@waybell/core/contract'
import type { Stop, Tried } from '@waybell/core'
import type { KnownMenus } from '../messages.ts'
import { withoutMotion } from '../page/motion.ts'
import { pause } from '../page/pending.ts'
import { furthest, jumpTo, position, scroller, viewTop } from '../page/scroller.ts'
import { moveTo, throughThePage, untilLoaded, untilQuiet, untilStill } from '../page/settle.ts'
import { elementAt, positionOf } from '../page/stamps.ts'
import { builtMenus, placeHash } from '../survey/built.ts'
import { coverOver, madeNameOf, nameOf } from './cover.ts'
import { isClosed, markedAs } from './current.ts'
import { hashOfLink, isTopOnly, targetOf, wasTaken } from './follow.ts'
import { sizeProblems } from './item-size.ts'
import { isShown } from './marks.ts'
import { canOpen, findOpeners, forgetOpenings, isAside, isLeftOpen, open, shut } from './opening.ts'
import { overlayLeftOver, overlayOver } from './overlay.ts'

interface ToTry {
  link: HTMLAnchorElement
  menu: Element
  hash: string
  /** How the menu marks its items: a class, null for `aria-current`, or `none`. */
  mark: MarkClass | null | 'none'
}

/** True for a link that is visible or can be opened; links for other screens can't be pressed. */
function canBePressed(link: Element, menu: Element): boolean {
  // A menu that appears further down is pressed there.
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
  // Menus that a script built carry none of our attributes.
  for (const { menu } of builtMenus([...marks.keys()])) marks.set(menu, null)
  return [...marks].sort(([a], [b]) => (a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
}

/** Menu links to places on this page, in page order; without links for other screens. */
function linksToTry(menus: Menus, { items }: KnownMenus): ToTry[] {
  const known = new Set(items)
  return menus.flatMap(([menu, mark]) =>
    [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].flatMap((link) => {
      // A bare “#” that isn't an item is usually a script's button.
      const isItem = menu.hasAttribute(MADE) || known.has(positionOf(link) ?? -1)
      const hash = isItem ? hashOfLink(link) : placeHash(link)
      return hash !== null && canBePressed(link, menu) ? [{ link, menu, hash, mark }] : []
    }),
  )
}

/**
 * Tries one link; null when there is no such link.
 * @param place index among the links of the menus
 * @param isPatient waits longer, in case the machine was busy
 */
export async function tryLink(place: number, isPatient: boolean, known: KnownMenus): Promise<Tried | null> {
  // Scripts may build menus after loading.
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
    // Scrolling through the page loads its late parts.
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
  const problems = sizeProblems(link, menu)
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
    target: target === null && !isTop ? 'missing' : isTop || target!.getClientRects().length ? 'shown' : 'hidden',
    leaves: isElsewhere(link.getAttribute('target') ?? document.querySelector('base[target]')?.getAttribute('target')),
    ...stop,
    below: null,
    overlay: overlay ? nameOf(overlay) : '',
    isSideways: Math.abs(scroller().scrollLeft) > innerWidth / 2,
    mark: mark === 'none' ? 'right' : markedAs(menu, link, hash, mark),
    isTaken,
    astray: isTaken && correctedFrom !== null ? correctedFrom - position() : 0,
    menu: madeNameOf(menu) ?? '',
    leftOpen: null,
    sizeProblems: problems,
  }
  if (!isLeft) return { ...tried, below: tried.target === 'shown' ? await fromBelow(one, isPatient) : null }
  const by = await shut(menu, link)
  return { ...tried, leftOpen: { menu: positionOf(menu) ?? null, by: (by && positionOf(by)) ?? null } }
}

/** Follows the link again from the page's end, where headers return on the way up and sticky elements stand elsewhere. */
async function fromBelow(one: ToTry, isPatient: boolean): Promise<Stop> {
  await moveTo(furthest())
  await untilQuiet(undefined, 'ended')
  const { stop, isLeft } = await follow(one, isPatient)
  if (isLeft) await shut(one.menu, one.link)
  return stop
}

/** True for a hash that means the page as a whole. */
function isTopTarget(hash: string): boolean {
  const target = targetOf(hash)
  return target ? target === document.body || target === document.documentElement : isTopOnly(hash)
}

/** Presses a link and waits until the page is still. */
async function follow({ link, menu, hash }: ToTry, isPatient: boolean): Promise<{ stop: Stop; isTaken: boolean; isLeft: boolean }> {
  const isOpened = await open(menu, link)
  const overlay = overlayOver(link)
  const isTaken = await press(link)
  const isQuiet = await untilQuiet(isPatient ? 1200 : 250, undefined, isTaken ? LONGEST_TAKEN : undefined)
  // On a page that never rests, only a time without scrolling shows that its script is done.
  if (isTaken && !isQuiet) await untilStill(position, 700, LONGEST_TAKEN)
  const isLeft = isOpened && (await isLeftOpen(menu))
  // A closing menu may move the header, and the page with it.
  if (isOpened && !isLeft && !(await untilQuiet())) await untilStill(position, 200, 2000)
  const target = isTopTarget(hash) ? null : targetOf(hash)
  const over = target ? coverOver(target, isLeft ? menu : null, overlay) : null
  const stop: Stop = {
    scroll: position(),
    top: target?.getClientRects().length ? target.getBoundingClientRect().top - viewTop() : null,
    coveredBy: over === 'out' ? '' : over && nameOf(over),
  }
  return { stop, isTaken, isLeft }
}

/** Max time for the page's script to handle a press, in ms. */
const LONGEST_TAKEN = 8000

/** Presses a link as a visitor does. Returns whether a page script handled it. */
async function press(link: HTMLAnchorElement): Promise<boolean> {
  // Disabled items are pressed too.
  link.removeAttribute('aria-disabled')
  link.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true, composed: true, view: window }))
  await pause(0)
  return wasTaken()
}

/** Scroll position that the page's script had chosen, before our script corrected it; null if it didn't. */
let correctedFrom: number | null = null
const notePutRight = (): void => void (correctedFrom ??= position())
