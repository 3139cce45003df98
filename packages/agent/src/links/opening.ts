/** Menus that are shut on a small screen: opened as a visitor opens them before a link in them is tried, and shut again behind it. */
import { isInReach, MADE } from '@waybell/core/contract'
import { isShown } from './marks.ts'
import { jumpTo, scroller } from '../page/scroller.ts'
import { untilQuiet } from '../page/settle.ts'
import { placeHash } from '../survey/built.ts'

/** What may be pressed to open or to shut something. */
const BUTTONS =
  'button, summary, label[for], [role=button], [aria-expanded], [aria-controls], [aria-haspopup], [data-toggle], [data-bs-toggle], [onclick], a:not([href]), a[href^="#"], a[href^="javascript:"]'
const OPENS = /menu|nav|burger|toggle|drawer|trigger|☰|≡/i
const SHUTS = /close|shut|dismiss|schlie(ß|ss)en|fermer|cerrar|(^|\s)[×✕✖x]\s*$/i

/** As many are tried at most. */
const MOST = 5
/** On a page that never rests: as long as what opens or shuts may take, and a menu to shut itself, in ms. */
const BEGINS = 600
const LONGEST = 900

interface Known {
  /** What opens it; null where nothing was found to. */
  opener: HTMLElement | null
  /** Its links that are out of reach while it is shut. */
  links: readonly Element[]
  /** It is open no more behind a press of its links. */
  shutsItself: boolean
}
let known = new WeakMap<Element, Known>()
/** Before links are tried anew: the page may do otherwise by now. */
export const forgetOpenings = (): void => void (known = new WeakMap())

const canReach = (el: Element): boolean => isShown(el) && isInReach<Element>(el, document)

/** Further down the page than is seen now it may be in reach all the same. */
const isBelow = (el: Element): boolean => isShown(el) && el.getBoundingClientRect().top >= innerHeight

const namesOf = (el: Element): string =>
  [
    el.id,
    el.getAttribute('class'),
    el.getAttribute('aria-label'),
    el.getAttribute('title'),
    (el.textContent ?? '').trim().slice(0, 40),
  ].join(' ')

/** What an attribute of it names is the list, or holds it. */
const namesIt = (el: Element, link: Element): boolean =>
  ['aria-controls', 'data-target', 'data-bs-target', 'popovertarget', 'href'].some((name) => {
    const id = el.getAttribute(name)?.replace(/^#/, '')
    return !!id && !!document.getElementById(id)?.contains(link)
  })

const isButton = (el: Element): boolean => !/^#./.test(el.getAttribute('href') ?? '')

/** Levels up from the link to what holds both. */
function apart(el: Element, link: Element): number {
  let levels = 0
  for (let e = link.parentElement; e && !e.contains(el); e = e.parentElement) levels++
  return levels
}

const buttonsInReach = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(BUTTONS)].filter(canReach)

const buttonsBy = (link: Element, words: RegExp): HTMLElement[] =>
  buttonsInReach()
    // A link to what is no menu leads there.
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

/** What was pressed has opened something else, or nothing. */
async function takeBack(opener: HTMLElement, before: ReadonlySet<Element>): Promise<void> {
  const shuts = buttonsInReach().find((el) => !before.has(el) && SHUTS.test(namesOf(el)))
  if (shuts) shuts.click()
  else if (canReach(opener)) opener.click()
  await untilQuiet(BEGINS)
}

/** A menu that pushes the page aside may be out of reach where a press took the page along. */
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
 * @returns true where it did. Where nothing does, or the menu was seen to shut itself behind a press, it is left as it is, and so is one that
 * was made: what that does is known.
 */
export async function open(menu: Element, link: Element): Promise<boolean> {
  if (menu.hasAttribute(MADE) || canReach(link) || isBelow(link)) return false
  const was = known.get(menu)
  if (was) return !!was.opener && !was.shutsItself && pressUntil(was.opener, () => isOpen(was))
  const all = [...menu.querySelectorAll('a[href]')]
  const links = all.filter((l) => !canReach(l) && !isBelow(l))
  // Where more can be pressed than not, it is a list within it that is shut.
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

/** It has no box, or stands beside what is seen. */
export function isAside(menu: Element): boolean {
  const { left, right } = menu.getBoundingClientRect()
  return !menu.getClientRects().length || right <= 0 || left >= innerWidth
}

/** What cannot be seen at all is in use on this screen where something opens it. It is shut again. */
export async function findOpeners(menus: readonly Element[]): Promise<void> {
  for (const menu of menus) {
    // What shuts it may be a link as well, and stand before the others.
    const link = isAside(menu) ? [...menu.querySelectorAll('a[href]')].find((a) => placeHash(a) !== null) : null
    if (link && (await open(menu, link))) await shut(menu, link)
  }
}
export const canOpen = (menu: Element): boolean => !!known.get(menu)?.opener

/** Behind a press in a menu that was opened: it does not shut itself. What takes a moment to go is waited for. */
export async function isLeftOpen(menu: Element): Promise<boolean> {
  const of = known.get(menu)!
  if (isOpen(of)) await untilQuiet(LONGEST)
  of.shutsItself = !isOpen(of)
  return !of.shutsItself
}

/** Shuts a menu that was opened. @returns what did; null where nothing was found to */
export async function shut(menu: Element, link: Element): Promise<Element | null> {
  const of = known.get(menu)!
  // What opened it may have gone out of view with the page.
  if (!canReach(of.opener!)) {
    jumpTo(0)
    scroller().scrollTo({ left: 0, behavior: 'instant' })
  }
  for (const button of new Set([of.opener!, ...buttonsBy(link, SHUTS)]))
    if (canReach(button) && (await pressUntil(button, () => !isOpen(of)))) return button
  return null
}
