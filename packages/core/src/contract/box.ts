/** Boxes that a hash does not scroll to although they are drawn: those that the viewport itself holds. */
interface Offset {
  readonly offsetParent: unknown
}

/**
 * True for a fixed element and what is in it, unless something transformed around it holds it instead. What stands in the head, as our
 * anchors do, is held by the page. @see CSSOM View, "offsetParent"
 */
export function isFixed<T extends Offset>(el: T, body: T & { contains: (other: T) => boolean }): boolean {
  let outermost = el
  while (outermost !== body && outermost.offsetParent) outermost = outermost.offsetParent as T
  return outermost !== body && body.contains(outermost)
}
