/**
 * Bounds how often the page speaks to the application. What it says goes through the browser, which every frame of the application shares: where a
 * page says more than that can carry, the word that ends its frame waits behind all of it, and more comes meanwhile. So it is stopped here, where
 * it begins. A page that reaches the application by other names is stopped by the application alone.
 */

/** A page that says all it has in every frame of a screen that draws 240 of them says less. */
const MOST_A_SECOND = 600

/**
 * The page's own `parent`, which it may replace as ever, until it asks for it more often than a page that speaks has to.
 * @param onLoud called once, with the way to the application; from then on the page has none by that name
 */
export function boundSpeech(onLoud: (application: Window) => void): void {
  const own = Object.getOwnPropertyDescriptor(window, 'parent')
  if (!own?.get || !own.configurable) return
  const application = window.parent
  const now = performance.now.bind(performance)
  let since = now()
  let count = 0
  let isLoud = false
  Object.defineProperty(window, 'parent', {
    ...own,
    get(): Window {
      if (isLoud) throw new Error('This page sent too many messages and is now ignored.')
      if (++count > MOST_A_SECOND) {
        const at = now()
        if (at - since < 1000) {
          isLoud = true
          onLoud(application)
        }
        since = at
        count = 0
      }
      return application
    },
  })
}
