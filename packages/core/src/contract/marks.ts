/** How the current item of a menu is marked. */

/**
 * Looks that a handover writes for menus that a page has, in the order in which they are preferred: the page's own for `aria-current`, where it
 * has one that shows; a line under the words; an edge, where the page's styles keep links from being underlined; and a line that wins over
 * whatever the page says.
 */
export const MARK_STYLES = {
  page: '',
  line: 'text-decoration: underline; text-decoration-thickness: 2px; text-underline-offset: 0.3em;',
  edge: 'box-shadow: inset 0 -2px 0 currentColor;',
  strong: 'text-decoration: underline !important; text-decoration-thickness: 2px !important; text-underline-offset: 0.3em !important;',
} as const

export type MarkStyle = keyof typeof MARK_STYLES
export const markStyles = Object.keys(MARK_STYLES) as MarkStyle[]

/** A class by which the page marks an item already, on its link or on what holds the link in the list. The script moves it along. */
export interface MarkClass {
  name: string
  on: 'link' | 'entry'
}

export type Mark = MarkStyle | MarkClass

/** What `data-wb-menu` says of a mark: nothing for the usual line. */
export const markText = (mark: Mark): string => (typeof mark === 'string' ? (mark === 'line' ? '' : mark) : `${mark.on} ${mark.name}`)

/** The class that `data-wb-menu` says the page's items are marked by; null without one. */
export function markClassOf(text: string | null): MarkClass | null {
  const [on, name] = (text ?? '').split(' ')
  return (on === 'link' || on === 'entry') && name ? { on, name } : null
}

/** The entry of a list that holds a link, or the link where it stands in none. */
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

/** What opens the lists around a link: it is seen where they are closed. Words that stand in an entry themselves have that. */
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

/** Rules of a style by its selector; a strong one counts as much as three IDs. */
export const markRule = (style: MarkStyle, menu: string, current: string): string => {
  const force = style === 'strong' ? ':not(#_1):not(#_2):not(#_3)' : ''
  return `${menu}${force} ${current} {\n  ${MARK_STYLES[style].replace(/; /g, ';\n  ')}\n}`
}
