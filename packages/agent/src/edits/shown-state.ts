/** Shows a menu's items in one state, without a pointer. Not handed over. */
import { MADE } from '@waybell/core/contract'
import type { MenuPlace } from '../messages.ts'
import { elementAt } from '../page/stamps.ts'

const HELD = 'data-wb-held'
let sheet: CSSStyleSheet | null = null

/** @param declarations each with its semicolon; empty to undo */
export function showState(menu: MenuPlace | null, declarations: readonly string[]): void {
  for (const el of document.querySelectorAll(`[${HELD}]`)) el.removeAttribute(HELD)
  document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== sheet)
  sheet = null
  if (!menu || !declarations.length) return
  const made = `:is(nav[${MADE}^="${menu.made} "], p[${MADE}^="${menu.made}."])`
  const hosts = menu.made ? [...document.querySelectorAll(made)] : menu.elements.flatMap((at) => elementAt(at) ?? [])
  for (const host of hosts) for (const el of host.querySelectorAll('a[href], summary, .wb-words')) el.setAttribute(HELD, '')
  sheet = new CSSStyleSheet()
  sheet.replaceSync(`[${HELD}] { ${declarations.map((d) => d.replace(/;$/, ' !important;')).join(' ')} }`)
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
}
