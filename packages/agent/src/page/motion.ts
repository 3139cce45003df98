/** Makes scrolling instant, and restores it. */
import { scroller } from './scroller.ts'

const isAtOnce = ([to]: unknown[]): boolean => (to as ScrollToOptions | undefined)?.behavior === 'instant'

/**
 * Makes smooth scrolling instant, for styles and scripts. Otherwise overshoot would depend on the machine's load, and headers that watch
 * the scroll direction react to it.
 * @param onJump called before a script scrolls
 * @returns restores it
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
