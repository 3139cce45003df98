/** Boxes that a hash does not scroll to although they are drawn: those that the viewport itself holds. */
interface Offset {
  readonly offsetParent: unknown
}

/** True for a fixed element and what is in it, unless something transformed around it holds it instead. @see CSSOM View, "offsetParent" */
export function isFixed(el: Offset, body: Offset): boolean {
  let outermost = el
  while (outermost !== body && outermost.offsetParent) outermost = outermost.offsetParent as Offset
  return outermost !== body
}
