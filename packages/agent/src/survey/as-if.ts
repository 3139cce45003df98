/** What would be, tried out in the page and taken back at once, so that nobody sees it. */

const still = (el: HTMLElement): void => el.style.setProperty('transition', 'none', 'important')

/** What `read` gives while elements have other declarations. Nothing of the page moves to them, nor back. */
export function asIf<T>(others: readonly (readonly [HTMLElement, Readonly<Record<string, string>>])[], read: () => T): T {
  const own = new Map(others.map(([el]) => [el, el.getAttribute('style')]))
  const restore = (el: HTMLElement) => {
    const style = own.get(el)!
    if (style === null) el.removeAttribute('style')
    else el.setAttribute('style', style)
  }
  try {
    for (const [el, declarations] of others) {
      still(el)
      for (const [name, value] of Object.entries(declarations)) el.style.setProperty(name, value, 'important')
    }
    return read()
  } finally {
    for (const el of own.keys()) {
      restore(el)
      still(el)
    }
    // Taken in before its own transition holds again, which else would lead it back.
    for (const el of own.keys()) void el.offsetHeight
    for (const el of own.keys()) restore(el)
  }
}
