/** The page's style rules, as far as readable. */

/** Rules that apply now, in order. Sheets of other hosts aren't readable. */
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

/** `:target` on a selector's subject. */
const TARGET = /:target(?![\w-])(?=[^\s>+~]*(?:,|$))/g

const asTargets = new CSSStyleSheet()

/**
 * Evaluates as if every element were the target, for `scroll-margin-top` only, which moves nothing: `:target` applies only after
 * following a link.
 */
export function asIfTargets<T>(look: () => T): T {
  const rules = rulesNow().flatMap(({ selectorText, style }) => {
    const margin = style.getPropertyValue('scroll-margin-top')
    // Matches everything with the same specificity.
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
