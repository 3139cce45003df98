/**
 * Links that are clicked in the live page. Hashes scroll without an entry in the application's history; other links stay where they
 * are and are reported.
 */
import { fragmentOf, indicated } from '@waybell/core/contract'
import { jumpTo, twoFrames } from './settle.ts'

let moving = false

/** @param isBusy true while presses are meant for something else */
export function takeLinks(outside: (href: string) => void, isBusy: () => boolean): void {
  addEventListener('scroll', () => (moving = true), { passive: true })
  addEventListener('scrollend', () => (moving = false))
  addEventListener(
    'click',
    (event) => {
      const link = event.target instanceof Element ? event.target.closest('a[href], area[href]') : null
      if (!link || event.defaultPrevented || isBusy()) return
      const href = link.getAttribute('href')!.trim()
      event.preventDefault()
      const hash = href.startsWith('#') ? href : sameDocumentHash(link)
      if (hash !== null) void follow(hash)
      else outside(href)
    },
    true,
  )
  addEventListener('submit', (event) => event.preventDefault(), true)
}

function sameDocumentHash(link: Element): string | null {
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

/** As a click by hand does it: a change of the hash while the page still moves is not scrolled to, so the motion is stopped first. */
export async function follow(hash: string): Promise<void> {
  if (moving) {
    jumpTo(scrollY)
    await twoFrames()
  }
  const before = location.hash
  location.replace(location.href.replace(/#.*$/s, '') + hash)
  // The same hash again scrolls, but no change is told; the script in the page would have seen a visitor's click.
  if (location.hash === before) dispatchEvent(new HashChangeEvent('hashchange', { oldURL: location.href, newURL: location.href }))
}
