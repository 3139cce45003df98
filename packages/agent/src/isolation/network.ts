/**
 * Blocks network access that no policy covers in every browser. Chromium is told by a header to connect only to the page's host; here
 * the functions are removed before page scripts run, and from frames that the page adds.
 */
const NAMES = ['RTCPeerConnection', 'webkitRTCPeerConnection', 'WebTransport']

const take = (from: Window): void => {
  for (const name of NAMES) Reflect.deleteProperty(from, name)
}

export function closeWays(): void {
  take(window)
  for (const kind of [HTMLIFrameElement, HTMLFrameElement, HTMLObjectElement] as { prototype: object }[])
    for (const name of ['contentWindow', 'contentDocument']) {
      const own = Object.getOwnPropertyDescriptor(kind.prototype, name)
      if (!own?.get) continue
      const { get } = own
      Object.defineProperty(kind.prototype, name, {
        ...own,
        get(this: HTMLIFrameElement) {
          const found = Reflect.apply(get, this, []) as (Window & Document) | null
          reach(name === 'contentDocument' ? (found?.defaultView ?? null) : found)
          return found
        },
      })
    }
  // Frames reached other than by their element.
  new MutationObserver(() => {
    for (let i = 0; i < window.length; i++) reach(window[i] ?? null)
  }).observe(document, { childList: true, subtree: true })
}

/** A frame of another origin has a policy of its own. */
function reach(inner: Window | null): void {
  try {
    if (inner) take(inner)
  } catch {
    // It is of another origin.
  }
}
