/** For pages with sticky sections: browsers use a stuck element's current position, and so don't move. */

/** Sticky elements among an element and its ancestors. */
function stickyAround(el: HTMLElement | null): HTMLElement[] {
  const found: HTMLElement[] = []
  for (let e = el; e; e = e.parentElement) if (getComputedStyle(e).position === 'sticky') found.push(e)
  return found
}

export const sticks = (el: HTMLElement | null): boolean => stickyAround(el).length > 0

/** Reads an element as if it and its ancestors weren't stuck. */
export function unstuck<T>(el: HTMLElement, read: (el: HTMLElement) => T): T {
  const sticky = stickyAround(el)
  const own = sticky.map((e) => e.getAttribute('style'))
  // Keeps its content in place; undone before the frame, so it's invisible.
  for (const e of sticky) e.style.cssText += ';position:relative!important;inset:auto!important'
  const said = read(el)
  sticky.forEach((e, i) => (own[i] === null ? e.removeAttribute('style') : e.setAttribute('style', own[i]!)))
  return said
}
