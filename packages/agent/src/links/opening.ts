/** Opens menus that are closed on small screens, as a visitor does, and closes them after trying a link. */
import { isInReach, MADE } from '@waybell/core/contract'
import { isShown } from './marks.ts'
import { jumpTo, scroller } from '../page/scroller.ts'
import { untilQuiet } from '../page/settle.ts'
import { placeHash } from '../survey/built.ts'

/** Elements that may open or close something. */
const BUTTONS =
  'button, summary, label[for], [role=button], [aria-expanded], [aria-controls], [aria-haspopup], [data-toggle], [data-bs-toggle], [onclick], a:not([href]), a[href^="#"], a[href^="javascript:"]'
const OPENS = /menu|nav|burger|toggle|drawer|trigger|☰|≡/i
const SHUTS = /close|shut|dismiss|schlie(ß|ss)en|fermer|cerrar|(^|\s)[×✕✖x]\s*$/i

/** Max candidates tried. */
const MOST = 5
/** On a page that never rests: max time to open or close, and for a menu to close itself, in ms. */
const BEGINS = 600
const LONGEST = 900

interface Known {
  /** Its opener; null if none was found. */
  opener: HTMLElement | null
  /** Its links that are out of reach while closed. */
  links: readonly Element[]
  /** It closes after a press of its links. */
  shutsItself: boolean
}
let known = new WeakMap<Element, Known>()
/** Before new tries: the page may behave differently now. */
export const forgetOpenings = (): void => void (known = new WeakMap())

const canReach = (el: Element): boolean => isShown(el) && isInReach<Element>(el, document)

/** Below the visible part, it may still be in reach. */
const isBelow = (el: Element): boolean => isShown(el) && el.getBoundingClientRect().top >= innerHeight

const namesOf = (el: Element): string =>
  [
    el.id,
    el.getAttribute('class'),
    el.getAttribute('aria-label'),
    el.getAttribute('title'),
    (el.textContent ?? '').trim().slice(0, 40),
  ].join(' ')

/** True when an attribute refers to the list or an element around it. */
const namesIt = (el: Element, link: Element): boolean =>
  ['aria-controls', 'data-target', 'data-bs-target', 'popovertarget', 'href'].some((name) => {
    const id = el.getAttribute(name)?.replace(/^#/, '')
    return !!id && !!document.getElementById(id)?.contains(link)
  })

const isButton = (el: Element): boolean => !/^#./.test(el.getAttribute('href') ?? '')

/** Levels from the link to the common ancestor. */
function apart(el: Element, link: Element): number {
  let levels = 0
  for (let e = link.parentElement; e && !e.contains(el); e = e.parentElement) levels++
  return levels
}

const buttonsInReach = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(BUTTONS)].filter(canReach)

const buttonsBy = (link: Element, words: RegExp): HTMLElement[] =>
  buttonsInReach()
    // A link to something that isn't a menu goes there.
    .filter((el) => !el.contains(link) && (namesIt(el, link) || (isButton(el) && words.test(namesOf(el)))))
    .map((el) => ({ el, rank: namesIt(el, link) ? -1 : apart(el, link) }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST)
    .map(({ el }) => el)

async function pressUntil(button: HTMLElement, isDone: () => boolean): Promise<boolean> {
  button.click()
  await untilQuiet(BEGINS)
  return isDone()
}

/** Undoes a press that opened something else, or nothing. */
async function takeBack(opener: HTMLElement, before: ReadonlySet<Element>): Promise<void> {
  const shuts = buttonsInReach().find((el) => !before.has(el) && SHUTS.test(namesOf(el)))
  if (shuts) shuts.click()
  else if (canReach(opener)) opener.click()
  await untilQuiet(BEGINS)
}

/** A menu that pushes the page aside may be out of reach after a press. */
function isOpen({ links }: Pick<Known, 'links'>): boolean {
  const box = scroller()
  const aside = box.scrollLeft
  if (aside) box.scrollTo({ left: 0, behavior: 'instant' })
  const is = links.some(canReach)
  if (aside) box.scrollTo({ left: aside, behavior: 'instant' })
  return is
}

/**
 * Opens the menu of a link that is out of reach.
 * @returns true if it did. Menus without opener, menus that close themselves and made menus are left alone.
 */
export async function open(menu: Element, link: Element): Promise<boolean> {
  if (menu.hasAttribute(MADE) || canReach(link) || isBelow(link)) return false
  const was = known.get(menu)
  if (was) return !!was.opener && !was.shutsItself && pressUntil(was.opener, () => isOpen(was))
  const all = [...menu.querySelectorAll('a[href]')]
  const links = all.filter((l) => !canReach(l) && !isBelow(l))
  // With most links in reach, it's a list inside that is closed.
  for (const opener of links.length > all.length / 2 ? buttonsBy(link, OPENS) : []) {
    const before = new Set(buttonsInReach())
    if (await pressUntil(opener, () => isOpen({ links }))) {
      known.set(menu, { opener, links: links.filter(canReach), shutsItself: false })
      return true
    }
    await takeBack(opener, before)
  }
  known.set(menu, { opener: null, links, shutsItself: false })
  return false
}

/** True without a box, or beside the viewport. */
export function isAside(menu: Element): boolean {
  const { left, right } = menu.getBoundingClientRect()
  return !menu.getClientRects().length || right <= 0 || left >= innerWidth
}

/** Finds openers of invisible menus, and closes those again. */
export async function findOpeners(menus: readonly Element[]): Promise<void> {
  for (const menu of menus) {
    // The closing button may also be a link, and come first.
    const link = isAside(menu) ? [...menu.querySelectorAll('a[href]')].find((a) => placeHash(a) !== null) : null
    if (link && (await open(menu, link))) await shut(menu, link)
  }
}
export const canOpen = (menu: Element): boolean => !!known.get(menu)?.opener

/** True when an opened menu stays open after a press; waits for closing animations. */
export async function isLeftOpen(menu: Element): Promise<boolean> {
  const of = known.get(menu)!
  if (isOpen(of)) await untilQuiet(LONGEST)
  of.shutsItself = !isOpen(of)
  return !of.shutsItself
}

/** Closes an opened menu. @returns the button that did; null if none was found */
export async function shut(menu: Element, link: Element): Promise<Element | null> {
  const of = known.get(menu)!
  // The opener may have scrolled away.
  if (!canReach(of.opener!)) {
    jumpTo(0)
    scroller().scrollTo({ left: 0, behavior: 'instant' })
  }
  for (const button of new Set([of.opener!, ...buttonsBy(link, SHUTS)]))
    if (canReach(button) && (await pressUntil(button, () => !isOpen(of)))) return button
  return null
}
