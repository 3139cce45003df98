/** Takes the motion out of scrolling, and gives it back. */
import { scroller } from './scroller.ts'

const isAtOnce = ([to]: unknown[]): boolean => (to as ScrollToOptions | undefined)?.behavior === 'instant'

/**
 * Makes smooth scrolling instant, whether style or script asks for it. How far smooth scrolling overshoots depends on how busy the machine is, and a
 * header that watches the direction answers to that.
 * @param onJump before a script moves the page at once by its own will
 * @returns what gives the motion back
 */
export function withoutMotion(onJump?: () => void): () => void {
  const still = new CSSStyleSheet()
  still.replaceSync('*, html { scroll-behavior: auto !important; }')
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, still]
  const instant = (given: unknown[]): unknown[] => given.map((g) => (g && typeof g === 'object' ? { ...g, behavior: 'instant' } : g))
  const kept: (() => void)[] = []
  for (const [of, names] of [
    [window, ['scroll', 'scrollTo', 'scrollBy']],
    [Element.prototype, ['scroll', 'scrollTo', 'scrollBy', 'scrollIntoView']],
  ] as [object, string[]][])
    for (const name of names) {
      const own = Object.getOwnPropertyDescriptor(of, name)
      const call = Reflect.get(of, name) as (...given: unknown[]) => void
      Object.defineProperty(of, name, {
        configurable: true,
        writable: true,
        value(this: unknown, ...given: unknown[]) {
          if (this === scroller() && isAtOnce(given)) onJump?.()
          return Reflect.apply(call, this, instant(given)) as void
        },
      })
      kept.push(() => (own ? Object.defineProperty(of, name, own) : Reflect.deleteProperty(of, name)))
    }
  return () => {
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== still)
    for (const back of kept) back()
  }
}
