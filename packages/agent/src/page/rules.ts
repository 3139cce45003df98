/** Style rules of the page, as far as they can be read. */

/** Those that hold now, in the order in which they stand. Of sheets of another host none is read. */
export function rulesNow(): CSSStyleRule[] {
  return [...document.styleSheets].flatMap(rulesIn)
}

function rulesIn(holder: CSSStyleSheet | CSSGroupingRule): CSSStyleRule[] {
  let rules: CSSRule[]
  try {
    rules = [...holder.cssRules]
  } catch {
    return []
  }
  return rules.flatMap((rule) => {
    if (rule instanceof CSSImportRule) return rule.styleSheet ? rulesIn(rule.styleSheet) : []
    if (rule instanceof CSSMediaRule && !matchMedia(rule.conditionText).matches) return []
    if (rule instanceof CSSStyleRule) return rule
    return rule instanceof CSSGroupingRule ? rulesIn(rule) : []
  })
}

/** Of a selector’s own element, at its end or before a comma. */
const TARGET = /:target(?![\w-])(?=[^\s>+~]*(?:,|$))/g

const asTargets = new CSSStyleSheet()

/**
 * Looks at the page as if every element were the one that a link leads to: what a style says of `:target` counts only once one has been followed.
 * Of that, only `scroll-margin-top` is taken, which moves nothing.
 */
export function asIfTargets<T>(look: () => T): T {
  const rules = rulesNow().flatMap(({ selectorText, style }) => {
    const margin = style.getPropertyValue('scroll-margin-top')
    // Matches everything, and weighs as much.
    const selector = selectorText.replace(TARGET, ':nth-child(n)')
    return margin && selector !== selectorText
      ? `${selector} { scroll-margin-top: ${margin} ${style.getPropertyPriority('scroll-margin-top') && '!important'}; }`
      : []
  })
  if (!rules.length) return look()
  asTargets.replaceSync(rules.join('\n'))
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, asTargets]
  try {
    return look()
  } finally {
    document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== asTargets)
  }
}
