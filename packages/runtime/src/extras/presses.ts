/**
 * Stands alone: a script of the page that takes the presses of links to sections does all else that it does on a press, as closing a menu, but does
 * not keep the browser from following the link, and does not move the page until the visitor does something again.
 */
import { decodeFragment, fragmentOf, type Settings } from '@waybell/core/contract'
import { isHere, pressedLink, settings } from '../page.ts'
import { innerNow } from '../parts/scroller.ts'

const here = document as Document & { wbPresses?: true }
/** Until when the page's scripts do not move it, by the clock of the document. */
let until = 0
/** The longest that a script is expected to go on moving the page after a press, in ms. */
const LONGEST = 4000

const isQuiet = () => performance.now() < until
const isScroller = (el: unknown) => el === window || el === document.documentElement || el === document.body || el === innerNow()

/** The script before this says a place and no way there, or that it is to be at once. */
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
  // The link has written its entry of the history.
  const push = history.pushState.bind(history)
  history.pushState = (state, title, to) => {
    const isThere = isQuiet() && to != null && new URL(to, document.baseURI).href === location.href
    if (isThere) history.replaceState(state, title)
    else push(state, title, to)
  }
}

/** A press leads to a section of the page's. */
function leadsHere(link: HTMLAnchorElement, { sections, former }: Settings): boolean {
  const id = decodeFragment(fragmentOf(link.hash))
  return id !== '' && isHere(link) && (sections.includes(id) || former.some(({ was }) => was === id))
}

/** `return false` in an attribute of the link says nothing while its presses are not the script's. */
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
  // Behind the page's own: the script before this may still want another address than browsers write.
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
