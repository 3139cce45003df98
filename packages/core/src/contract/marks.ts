/** How the current item of a menu is marked. */

/**
 * Mark styles for found menus, in order of preference: the page's own style for `aria-current` if it shows; a line under the words; an
 * edge, if the page's styles keep links from being underlined; and a line that overrides the page's styles.
 */
export const MARK_STYLES = {
  page: '',
  line: 'text-decoration: underline; text-decoration-thickness: 2px; text-underline-offset: 0.3em;',
  edge: 'box-shadow: inset 0 -2px 0 currentColor;',
  strong: 'text-decoration: underline !important; text-decoration-thickness: 2px !important; text-underline-offset: 0.3em !important;',
} as const

export type MarkStyle = keyof typeof MARK_STYLES
export const markStyles = Object.keys(MARK_STYLES) as MarkStyle[]

/** A class that the page uses for its current item, on the link or its entry. The script moves it. */
export interface MarkClass {
  name: string
  on: 'link' | 'entry'
}

export type Mark = MarkStyle | MarkClass

/** The value of `data-wb-menu` for a mark; empty for a line. */
export const markText = (mark: Mark): string => (typeof mark === 'string' ? (mark === 'line' ? '' : mark) : `${mark.on} ${mark.name}`)

/** The class in a `data-wb-menu` value; null for none. */
export function markClassOf(text: string | null): MarkClass | null {
  const [on, name] = (text ?? '').split(' ')
  return (on === 'link' || on === 'entry') && name ? { on, name } : null
}

/** The list entry that holds a link; the link itself without one. */
export function entryOf<E extends { readonly localName: string; readonly parentElement: E | null }>(link: E, menu: E): E {
  for (let e = link.parentElement; e && e !== menu; e = e.parentElement) if (e.localName === 'li') return e
  return link
}

interface Entry<E> {
  readonly localName: string
  readonly parentElement: E | null
  readonly firstElementChild: E | null
  readonly firstChild: { readonly nodeValue: string | null } | null
  contains(other: E): boolean
  querySelector(selector: string): E | null
}

/** Openers of the lists around a link. They show the mark while the lists are closed. */
export function openersOf<E extends Entry<E>>(link: E, menu: E): E[] {
  const out: E[] = []
  for (let e = link.parentElement; e && e !== menu; e = e.parentElement) {
    const first = e.localName === 'details' ? e.querySelector('summary') : e.localName === 'li' ? e.firstElementChild : null
    const isBare = e.localName === 'li' && !!e.firstChild?.nodeValue?.trim() && !!first?.contains(link) && first !== link
    const head = isBare ? e : first
    if (head && (isBare || !head.contains(link))) out.push(head)
  }
  return out
}

/** CSS rule of a mark for parts of a menu; a strong selector counts as three IDs. @param marked selectors of the marked parts */
export const markRule = (style: MarkStyle, menu: string, ...marked: string[]): string => {
  const force = style === 'strong' ? ':not(#_1):not(#_2):not(#_3)' : ''
  const selector = marked.map((part) => `${menu}${force} ${part}`).join(',\n')
  return `${selector} {\n  ${MARK_STYLES[style].replace(/; /g, ';\n  ')}\n}`
}
