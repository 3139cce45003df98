/**
 * Separate script: a page script that handles presses of section links may do everything else, such as closing a menu, but doesn't
 * prevent the browser's default, and doesn't scroll until the visitor's next action.
 */
import { decodeFragment, fragmentOf, type Settings } from '@waybell/core/contract'
import { isHere, pressedLink, settings } from '../page.ts'
import { innerNow } from '../parts/scroller.ts'

const here = document as Document & { wbPresses?: true }
/** Time until which page scripts can't scroll, by the document's clock. */
let until = 0
/** Max time that a script scrolls after a press, in ms. */
const LONGEST = 4000

const isQuiet = () => performance.now() < until
const isScroller = (el: unknown) => el === window || el === document.documentElement || el === document.body || el === innerNow()

/** Our script scrolls to a position, without motion or at once. */
const isOurs = ([to]: unknown[]) => {
  const { behavior = 'instant', left, top } = (to ?? {}) as ScrollToOptions
  return behavior === 'instant' && left === undefined && top !== undefined
}

function guard(of: object, names: readonly string[], lets: (self: unknown, given: unknown[]) => boolean): void {
  for (const name of names) {
    const own = Reflect.get(of, name) as (...given: unknown[]) => unknown
    Object.defineProperty(of, name, {
      configurable: true,
      writable: true,
      value(this: unknown, ...given: unknown[]) {
        if (!isQuiet() || lets(this, given)) return Reflect.apply(own, this, given)
      },
    })
  }
}

function guardAll(): void {
  guard(window, ['scroll', 'scrollTo', 'scrollBy'], () => false)
  guard(Element.prototype, ['scroll', 'scrollTo', 'scrollBy'], (self, given) => isOurs(given) || !isScroller(self))
  guard(Element.prototype, ['scrollIntoView'], (_, [how]) => (how as ScrollIntoViewOptions | undefined)?.behavior === 'instant')
  const top = Object.getOwnPropertyDescriptor(Element.prototype, 'scrollTop')!
  Object.defineProperty(Element.prototype, 'scrollTop', {
    ...top,
    set(to: number) {
      if (!isQuiet() || !isScroller(this)) top.set!.call(this, to)
    },
  })
  // The link added its history entry.
  const push = history.pushState.bind(history)
  history.pushState = (state, title, to) => {
    const isThere = isQuiet() && to != null && new URL(to, document.baseURI).href === location.href
    if (isThere) history.replaceState(state, title)
    else push(state, title, to)
  }
}

/** True for a press of a section link. */
function leadsHere(link: HTMLAnchorElement, { sections, former }: Settings): boolean {
  const id = decodeFragment(fragmentOf(link.hash))
  return id !== '' && isHere(link) && (sections.includes(id) || former.some(({ was }) => was === id))
}

/** `return false` in the link's attribute has no effect meanwhile. */
const heard = new WeakSet<object>()
function unhear(link: HTMLElement): void {
  const said = link.onclick
  if (!said || heard.has(said)) return
  link.onclick = function (event) {
    const answer: unknown = said.call(this, event)
    return last?.event === event || answer
  }
  heard.add(link.onclick)
}

let last: { event: Event; giveBack: () => void } | undefined

function onPress(event: MouseEvent): void {
  const link = pressedLink(event)
  const s = settings()
  if (!link || !s?.takesPresses || !leadsHere(link, s)) return
  until = performance.now() + LONGEST
  unhear(link)
  const said = { preventDefault: { value: () => {} }, returnValue: { get: () => true, set: () => {} } }
  const had = Object.keys(said).map((name) => [name, Object.getOwnPropertyDescriptor(event, name)] as const)
  for (const [name, as] of Object.entries(said)) Object.defineProperty(event, name, { configurable: true, ...as })
  // After the page's own handlers: our script may still want another address.
  const giveBack = () => {
    for (const [name, as] of had) if (!as || !Object.defineProperty(event, name, as)) Reflect.deleteProperty(event, name)
  }
  last = { event, giveBack }
}

if (!here.wbPresses) {
  here.wbPresses = true
  guardAll()
  for (const type of ['wheel', 'touchmove', 'keydown', 'pointerdown'])
    addEventListener(type, () => (until = 0), { passive: true, capture: true })
  addEventListener('click', onPress, true)
  addEventListener('click', (event) => last?.event === event && last.giveBack())
}
