/** How a marked item looks, read from computed styles. */

/** Class names by which pages mark an item. */
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

/** Computed look of an element with its `::before` and `::after`. */
export const lookOf = (el: Element): string =>
  ['', '::before', '::after']
    .map((part) => {
      const style = getComputedStyle(el, part || undefined)
      // A pseudo-element without content has no look.
      return part && (style.content === 'none' || style.content === 'normal') ? '' : `${looks(style)}|${part && style.width}`
    })
    .join('/')

/** True when visible, including its open list. */
export const isShown = (el: Element): boolean =>
  el.getClientRects().length > 0 && (el.checkVisibility?.({ visibilityProperty: true }) ?? true)

/** Evaluates under extra rules and without transitions, which would give old computed values. */
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
