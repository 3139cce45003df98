/**
 * The page's own history. A frame's entries would be the tab's: *Back* would go through the page, and a page that adds entries in a loop
 * would leave no way back. So the page gets a list of its own, which works as in a visitor's browser.
 */
interface Entry {
  state: unknown
  url: string
}

export function keepHistory(): void {
  const { apply } = Reflect
  const replace = History.prototype.replaceState
  const readState = Object.getOwnPropertyDescriptor(History.prototype, 'state')!.get!
  const entries: Entry[] = [{ state: apply(readState, history, []) as unknown, url: location.href }]
  let at = 0

  const put = (state: unknown, unused: string, url?: string | URL | null): Entry => {
    apply(replace, history, [state, unused, url])
    return { state: apply(readState, history, []) as unknown, url: location.href }
  }
  const go = (by = 0): void => {
    const to = entries[at + by]
    if (!to || by === 0) return
    // Asynchronous, with events, as in a browser.
    setTimeout(() => {
      const from = location.href
      at += by
      put(to.state, '', to.url)
      dispatchEvent(new PopStateEvent('popstate', { state: to.state }))
      if (from.replace(/^[^#]*/, '') !== to.url.replace(/^[^#]*/, ''))
        dispatchEvent(new HashChangeEvent('hashchange', { oldURL: from, newURL: to.url }))
    })
  }

  const define = (name: string, value: object) =>
    Object.defineProperty(History.prototype, name, { configurable: true, enumerable: true, ...value })
  const method = (name: string, value: (...given: never[]) => void) => define(name, { value, writable: true })
  method('pushState', (state: unknown, unused: string, url?: string | URL | null) => {
    const entry = put(state, unused, url)
    entries.splice(++at, Infinity, entry)
    // Browsers' limit.
    if (entries.length > MOST) at -= entries.splice(0, entries.length - MOST).length
  })
  method('replaceState', (state: unknown, unused: string, url?: string | URL | null) => {
    entries[at] = put(state, unused, url)
  })
  method('go', (by?: number) => go(Number(by) || 0))
  method('back', () => go(-1))
  method('forward', () => go(1))
  define('length', { get: () => entries.length })

  // A hash set by a script: the same place, without an entry.
  const navigation = (window as { navigation?: EventTarget }).navigation
  navigation?.addEventListener('navigate', (event) => {
    const to = event as Event & { hashChange: boolean; navigationType: string; destination: { url: string } }
    if (!to.hashChange || to.navigationType !== 'push' || !event.cancelable) return
    event.preventDefault()
    const { url } = to.destination
    entries.splice(++at, Infinity, { state: null, url })
    setTimeout(() => location.replace(url))
  })
}

const MOST = 50
