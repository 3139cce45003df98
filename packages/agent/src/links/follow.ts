/**
 * Links that are clicked in the live page. Hashes scroll without an entry in the application's history; other links stay where they
 * are and are reported.
 */
import { fragmentOf, FOLLOWS, indicated, LETS_GO, PIECE } from '@waybell/core/contract'
import { jumpTo, position } from '../page/scroller.ts'
import { twoFrames } from '../page/settle.ts'

let moving = false
/** The last press on a link was taken over by a script of the page. */
let taken = false
export const wasTaken = (): boolean => taken

export interface Taking {
  outside: (href: string) => void
  followed: (hash: string) => void
  /** True while presses are meant for something else. */
  isBusy: () => boolean
}

export function takeLinks({ outside, followed, isBusy }: Taking): void {
  addEventListener('scroll', () => (moving = true), { passive: true, capture: true })
  addEventListener('scrollend', () => (moving = false), true)
  addEventListener(
    'click',
    (event) => {
      const link = event.target instanceof Element ? event.target.closest('a[href], area[href]') : null
      if (!link || event.defaultPrevented || isBusy()) return
      const href = link.getAttribute('href')!.trim()
      event.preventDefault()
      const isTaken = watchTaking(event)
      const hash = hashOfLink(link)
      if (hash === null) return outside(href)
      // What a visitor's browser would do is done once the page's own scripts had their turn, unless they want it done otherwise.
      setTimeout(() => {
        taken = isTaken()
        if (taken) return
        followed(hash)
        void follow(hash)
      })
    },
    true,
  )
  addEventListener('submit', (event) => event.preventDefault(), true)
}

/** Where nothing is taken from the browser, only looks on. */
export function watchPresses(): void {
  const look = (event: Event) => setTimeout(() => (taken = event.defaultPrevented))
  addEventListener('click', look, true)
}

/** Our script is the last to have a press: where links are to write no entry of the history, it is not a script of the page that takes them. */
function isOurs({ eventPhase, currentTarget }: Event): boolean {
  if (currentTarget !== window || eventPhase !== Event.BUBBLING_PHASE) return false
  const said = [...document.querySelectorAll(`script[${PIECE}="settings"]`)].map((el) => el.textContent ?? '')
  return said.some((text) => /"address": "/.test(text))
}

/** Watches whether the page keeps the browser from what it would do. @returns what says so, once the event is over */
export function watchTaking(event: Event): () => boolean {
  let isTaken = false
  const prevent = () => void (isTaken ||= !isOurs(event))
  // `return false` of an `onclick` calls nothing.
  for (const el of event.composedPath()) {
    if (!(el instanceof HTMLElement) || !el.onclick) continue
    const said = el.onclick
    const listens = function (this: GlobalEventHandlers, ...given: Parameters<NonNullable<GlobalEventHandlers['onclick']>>) {
      const answer: unknown = said.apply(this, given)
      // Where the script in the page has put its own around it, that one's answer counts.
      if (answer === false && el.onclick === listens) prevent()
      return answer
    }
    el.onclick = listens
    // One that it was given meanwhile stays.
    setTimeout(() => el.onclick === listens && (el.onclick = said))
  }
  Object.defineProperty(event, 'preventDefault', { configurable: true, value: prevent })
  Object.defineProperty(event, 'returnValue', { configurable: true, get: () => !isTaken, set: (to: unknown) => to === false && prevent() })
  Object.defineProperty(event, 'defaultPrevented', { configurable: true, get: () => isTaken })
  return () => isTaken
}

/** What a link asks for on this page, as it is written where that begins with `#`; null for one that leads away. */
export function hashOfLink(link: Element): string | null {
  const href = link.getAttribute('href')!.trim()
  return href.startsWith('#') ? href : sameDocumentHash(link)
}

/** The page's top, and no element. @see HTML, "indicated part of the document" */
export const isTopOnly = (hash: string): boolean => indicated(fragmentOf(hash), () => null).kind === 'top'

export function sameDocumentHash(link: Element): string | null {
  const url = new URL((link as HTMLAnchorElement).href, document.baseURI)
  return url.hash && fileOf(url) === fileOf(location) ? url.hash : null
}

/** A folder's index is meant by the folder's own address too. */
const fileOf = ({ origin, pathname, search }: URL | Location): string => origin + pathname.replace(/(^|\/)index\.x?html?$/i, '$1') + search

/** The element that a hash leads to, looked for as the browser does. */
export function targetOf(hash: string): Element | null {
  const find = (name: string) => document.getElementById(name) ?? document.querySelector(`a[name="${CSS.escape(name)}"]`)
  const to = indicated(fragmentOf(hash), find)
  return to.kind === 'element' ? to.element : null
}

/** As the application does it, where no link is pressed. */
export function followAsLink(hash: string): Promise<void> {
  document.dispatchEvent(new CustomEvent(FOLLOWS, { detail: hash }))
  return follow(hash)
}

let wanted = 0
/** Where the application wants the page to stand, in px: the way to a link ends there, as by a visitor's wheel. */
export async function goTo(y: number): Promise<void> {
  document.dispatchEvent(new Event(LETS_GO))
  wanted = y
  jumpTo(y)
  if (!moving) return
  // A browser adds to a jump what it still had to do of a smooth motion.
  await twoFrames()
  if (wanted === y) jumpTo(y)
}

/** As a click by hand does it: a change of the hash while the page still moves is not scrolled to, so the motion is stopped first. */
async function follow(hash: string): Promise<void> {
  if (moving) {
    jumpTo(position())
    await twoFrames()
  }
  const before = location.hash
  location.replace(location.href.replace(/#.*$/s, '') + hash)
  // The same hash again scrolls, but no change is told; the script in the page would have seen a visitor's click.
  if (location.hash === before) dispatchEvent(new HashChangeEvent('hashchange', { oldURL: location.href, newURL: location.href }))
}
