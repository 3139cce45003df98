/** For pages on which sections stick: browsers measure what is stuck where it is now, and so lead to where the page stands already. */

/** What sticks of an element and of what it stands in. */
function stickyAround(el: HTMLElement | null): HTMLElement[] {
  const found: HTMLElement[] = []
  for (let e = el; e; e = e.parentElement) if (getComputedStyle(e).position === 'sticky') found.push(e)
  return found
}

export const sticks = (el: HTMLElement | null): boolean => stickyAround(el).length > 0

/** What `read` says of an element while neither it nor what it stands in is stuck. */
export function unstuck<T>(el: HTMLElement, read: (el: HTMLElement) => T): T {
  const sticky = stickyAround(el)
  const own = sticky.map((e) => e.getAttribute('style'))
  // It goes on holding what it holds. Nobody sees it: it is taken back before the frame.
  for (const e of sticky) e.style.cssText += ';position:relative!important;inset:auto!important'
  const said = read(el)
  sticky.forEach((e, i) => (own[i] === null ? e.removeAttribute('style') : e.setAttribute('style', own[i]!)))
  return said
}
