/** The markup of a menu that Way Bell makes. */
import { hashOf } from '../page/index.ts'
import type { Menu } from '../site/index.ts'

export const escapeText = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
export const escapeAttribute = (text: string): string => escapeText(text).replace(/"/g, '&quot;')

/** What stands inside the menu's `nav`: one row of links. */
export function menuMarkup(menu: Menu, idOf: ReadonlyMap<string, string>): string {
  const links = menu.items.flatMap((item) => {
    if (item.target.kind === 'as-is') return []
    const href = item.target.kind === 'top' ? '#' : hashOf(idOf.get(item.target.section)!)
    return `<a href="${escapeAttribute(href)}">${escapeText(item.label)}</a>`
  })
  return `\n${links.join('\n')}\n`
}
