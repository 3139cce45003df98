/** Followed links in the live page. Hashes scroll without an entry in the application's history; other links are blocked and reported. */
import { fragmentOf, FOLLOWS, indicated, LETS_GO, PIECE } from '@waybell/core/contract'
import { jumpTo, position } from '../page/scroller.ts'
import { twoFrames } from '../page/settle.ts'

let moving = false
/** A page script handled the last press. */
let taken = false
export const wasTaken = (): boolean => taken

export interface Taking {
  outside: (href: string) => void
  followed: (hash: string) => void
  /** True while presses have another purpose. */
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
      // The browser's default happens after the page's own scripts, unless they prevent it.
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

/** Only observes, without preventing the browser's default. */
export function watchPresses(): void {
  const look = (event: Event) => setTimeout(() => (taken = event.defaultPrevented))
  addEventListener('click', look, true)
}

/** True for our own script, which prevents the default when links add no history entry; it runs last. */
function isOurs({ eventPhase, currentTarget }: Event): boolean {
  if (currentTarget !== window || eventPhase !== Event.BUBBLING_PHASE) return false
  const said = [...document.querySelectorAll(`script[${PIECE}="settings"]`)].map((el) => el.textContent ?? '')
  return said.some((text) => /"address": "/.test(text))
}

/** Watches whether the page prevents a press's default. @returns a function to ask after the event */
export function watchTaking(event: Event): () => boolean {
  let isTaken = false
  const prevent = () => void (isTaken ||= !isOurs(event))
  // `return false` in an `onclick` calls nothing.
  for (const el of event.composedPath()) {
    if (!(el instanceof HTMLElement) || !el.onclick) continue
    const said = el.onclick
    const listens = function (this: GlobalEventHandlers, ...given: Parameters<NonNullable<GlobalEventHandlers['onclick']>>) {
      const answer: unknown = said.apply(this, given)
      // Our script may have wrapped it; then the wrapper's answer counts.
      if (answer === false && el.onclick === listens) prevent()
      return answer
    }
    el.onclick = listens
    // A handler set in the meantime stays.
    setTimeout(() => el.onclick === listens && (el.onclick = said))
  }
  Object.defineProperty(event, 'preventDefault', { configurable: true, value: prevent })
  Object.defineProperty(event, 'returnValue', { configurable: true, get: () => !isTaken, set: (to: unknown) => to === false && prevent() })
  Object.defineProperty(event, 'defaultPrevented', { configurable: true, get: () => isTaken })
  return () => isTaken
}

/** A link's hash on this page, as written if it starts with `#`; null for one that leads away. */
export function hashOfLink(link: Element): string | null {
  const href = link.getAttribute('href')!.trim()
  return href.startsWith('#') ? href : sameDocumentHash(link)
}

/** The page's top, without an element. @see HTML, "indicated part of the document" */
export const isTopOnly = (hash: string): boolean => indicated(fragmentOf(hash), () => null).kind === 'top'

export function sameDocumentHash(link: Element): string | null {
  const url = new URL((link as HTMLAnchorElement).href, document.baseURI)
  return url.hash && fileOf(url) === fileOf(location) ? url.hash : null
}

/** A folder's address also means its index. */
const fileOf = ({ origin, pathname, search }: URL | Location): string => origin + pathname.replace(/(^|\/)index\.x?html?$/i, '$1') + search

/** The element that a hash leads to, found as browsers do. */
export function targetOf(hash: string): Element | null {
  const find = (name: string) => document.getElementById(name) ?? document.querySelector(`a[name="${CSS.escape(name)}"]`)
  const to = indicated(fragmentOf(hash), find)
  return to.kind === 'element' ? to.element : null
}

/** Follows a hash without a press. */
export function followAsLink(hash: string): Promise<void> {
  document.dispatchEvent(new CustomEvent(FOLLOWS, { detail: hash }))
  return follow(hash)
}

let wanted = 0
/** Scrolls to a position in px; ends the way to a link, like a visitor's wheel. */
export async function goTo(y: number): Promise<void> {
  document.dispatchEvent(new Event(LETS_GO))
  wanted = y
  jumpTo(y)
  if (!moving) return
  // Browsers add the rest of a smooth scroll to a jump.
  await twoFrames()
  if (wanted === y) jumpTo(y)
}

/** As a click does: browsers ignore a hash change while the page moves, so the motion is stopped first. */
async function follow(hash: string): Promise<void> {
  if (moving) {
    jumpTo(position())
    await twoFrames()
  }
  const before = location.hash
  location.replace(location.href.replace(/#.*$/s, '') + hash)
  // The same hash scrolls without a `hashchange`; the script would have seen a click.
  if (location.hash === before) dispatchEvent(new HashChangeEvent('hashchange', { oldURL: location.href, newURL: location.href }))
}
