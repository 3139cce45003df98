/** How a marked item looks, read from computed styles. */

/** Names of classes by which pages mark an item. */
export const MARKING = /^(is-|nav-|menu-)?(active|current|selected)(-?(item|page|link|menu-?item))?$|^current[-_]menu[-_]item$/i
const LOOKS = [
  'color',
  'fontWeight',
  'fontStyle',
  'fontSize',
  'textDecorationLine',
  'textDecorationThickness',
  'textDecorationColor',
  'backgroundColor',
  'backgroundImage',
  'borderBottomColor',
  'borderBottomWidth',
  'borderBottomStyle',
  'borderLeftColor',
  'outlineStyle',
  'boxShadow',
  'opacity',
  'transform',
] as const

const looks = (style: CSSStyleDeclaration): string => LOOKS.map((name) => style[name]).join('|')

/** Of an element, and of what its style draws before and behind it. */
export const lookOf = (el: Element): string =>
  ['', '::before', '::after']
    .map((part) => {
      const style = getComputedStyle(el, part || undefined)
      // A box that is not drawn looks like nothing, whatever is said of it.
      return part && (style.content === 'none' || style.content === 'normal') ? '' : `${looks(style)}|${part && style.width}`
    })
    .join('/')

/** In a list that is open, and in no other way out of sight. */
export const isShown = (el: Element): boolean =>
  el.getClientRects().length > 0 && (el.checkVisibility?.({ visibilityProperty: true }) ?? true)

/** Under rules, and without transitions, under which a computed value is for a moment still the old one. */
export function underSheet<T>(rules: string, see: () => T): T {
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(`*, *::before, *::after { transition: none !important; } ${rules}`)
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
  try {
    return see()
  } finally {
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== sheet)
  }
}
