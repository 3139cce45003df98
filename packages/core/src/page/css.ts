/** Files and IDs that style sheets mention. @see CSS Syntax */
import { ident, parse, walk, type CssNode } from 'css-tree'

/** Null for nesting deeper than the parser accepts; browsers don't either. */
function read(css: string, context: 'stylesheet' | 'declarationList'): CssNode | null {
  try {
    return parse(css, { context, parseCustomProperty: true })
  } catch (error) {
    if (error instanceof RangeError) return null
    throw error
  }
}

/** Addresses that a style sheet or a `style` attribute loads: `url()` and `@import`. */
export function cssUrls(css: string, context: 'stylesheet' | 'declarationList' = 'stylesheet'): string[] {
  const out: string[] = []
  const add = (url: string) => {
    if (url && !url.startsWith('#')) out.push(url)
  }
  const sheet = read(css, context)
  if (sheet)
    walk(sheet, function (node) {
      if (node.type === 'Url') add(node.value)
      if (node.type === 'String' && this.atrule?.name.toLowerCase() === 'import' && !this.function) add(node.value)
    })
  return out
}

/** IDs that selectors of a style sheet name. */
export function selectorIds(css: string): Set<string> {
  const out = new Set<string>()
  const sheet = read(css, 'stylesheet')
  if (sheet)
    walk(sheet, (node) => {
      if (node.type === 'IdSelector') out.add(ident.decode(node.name))
    })
  return out
}
