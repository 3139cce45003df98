/** Tries a change in the page and undoes it at once, invisibly. */

const still = (el: HTMLElement): void => el.style.setProperty('transition', 'none', 'important')

/** Evaluates `read` with other declarations on elements, without transitions. */
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
    // Applied before its transition is restored, which would animate it back.
    for (const el of own.keys()) void el.offsetHeight
    for (const el of own.keys()) restore(el)
  }
}
