/** What can be made a link. @see HTML Standard, "The a element": content model transparent, without interactive content */

/** Access to elements of any tree. */
export interface Walk<E> {
  tag: (el: E) => string
  parent: (el: E) => E | null
  children: (el: E) => Iterable<E>
  attribute: (el: E, name: string) => string | null
}

/** Why an element can't be made a link; its words may still be. */
export type NoLink = 'is-link' | 'in-link' | 'in-button' | 'has-link' | 'is-control' | 'is-part' | 'in-drawing'

const words = (text: string) => new Set(text.split(' '))
const CONTROLS = words('input select textarea label details iframe embed object video audio option')
/** Elements that only stand in particular parents, which allow no links. */
const PARTS = words(
  'html head body main li dt dd tr td th thead tbody tfoot caption colgroup col legend figcaption summary source track param optgroup area script style template link meta title base br wbr rt rp slot',
)
/** Elements whose text isn't the page's, or that can't contain links. */
export const NO_WORDS = words('script style template noscript textarea select option title svg math button a label summary iframe object')

function holds<E>(el: E, walk: Walk<E>, found: (tag: string) => boolean): boolean {
  for (const child of walk.children(el)) if (found(walk.tag(child)) || holds(child, walk, found)) return true
  return false
}

const isInteractive = (tag: string): boolean => tag === 'a' || tag === 'button' || CONTROLS.has(tag) || tag === 'summary'

/** Why an element can't be made a link; null if it can. A button becomes a link; other elements are wrapped. */
export function whyNoLink<E>(el: E, walk: Walk<E>): NoLink | null {
  const tag = walk.tag(el)
  if (tag === 'a') return 'is-link'
  for (let e = walk.parent(el); e; e = walk.parent(e)) {
    const above = walk.tag(e)
    // A submit or reset button.
    if (above === 'form' && tag === 'button' && walk.attribute(el, 'type')?.toLowerCase() !== 'button') return 'is-control'
    if (above === 'a') return 'in-link'
    if (above === 'svg' || above === 'picture') return 'in-drawing'
    if (isInteractive(above) && above !== 'details') return 'in-button'
  }
  if (CONTROLS.has(tag)) return 'is-control'
  if (PARTS.has(tag)) return 'is-part'
  return holds(el, walk, isInteractive) ? 'has-link' : null
}

/** Matches words with any white space between them. */
export const wordsIn = (sought: string): RegExp =>
  new RegExp(
    sought
      .trim()
      .split(/\s+/)
      .map((w) => w.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'))
      .join('\\s+'),
  )
