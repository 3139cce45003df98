/**
 * Limits how often the page sends messages to the application. All frames share the browser's message queue: with too many messages, the
 * one that stops the frame would wait behind them. So they are limited here, at their source. A page that gets at the application by
 * other names is stopped by the application alone.
 */

/** Enough for a message in every frame at 240 Hz, with reserve. */
const MOST_A_SECOND = 600

/**
 * Replaces the page's `parent` until the page reads it too often. The page may still assign it.
 * @param onLoud called once with the way to the application; afterwards the page has none by that name
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
