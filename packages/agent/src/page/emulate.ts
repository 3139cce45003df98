/** Emulates what a frame lacks: bars over the page, and larger text. By adopted style sheets, so that the document stays unchanged. */
import type { Emulated } from '../messages.ts'
import { rulesNow } from './rules.ts'

const noBars = new CSSStyleSheet()
noBars.replaceSync('* { scrollbar-width: none; }')
const larger = new CSSStyleSheet()

function adopt(sheet: CSSStyleSheet, isOn: boolean): void {
  const others = document.adoptedStyleSheets.filter((s) => s !== sheet)
  if (document.adoptedStyleSheets.includes(sheet) !== isOn) document.adoptedStyleSheets = isOn ? [...others, sheet] : others
}

/** Last request. */
let asked: Emulated

/**
 * A phone lays its bars over the page. Larger text is set on `html` and affects `rem`, `em` and percent; media queries in `em` and sizes
 * in px don't change, as for a visitor.
 */
export function emulate({ touch, text }: Emulated): void {
  asked = { touch, ...(text && { text }) }
  adopt(noBars, touch)
  // Style sheets may still be loading.
  if (document.readyState !== 'complete') addEventListener('load', () => emulate(asked), { once: true })
  if (!text && !document.adoptedStyleSheets.includes(larger)) return
  larger.replaceSync('')
  adopt(larger, !!text)
  const root = document.documentElement
  const usual = parseFloat(getComputedStyle(root).fontSize)
  if (text && followsVisitor(root)) larger.replaceSync(`html { font-size: ${(usual * text) / 100}px !important; }`)
}

/** True when the root's text size follows the visitor's: unset, or in a relative unit. */
function followsVisitor(root: HTMLElement): boolean {
  const said = [...rulesNow().flatMap((r) => (root.matches(r.selectorText) ? r.style.fontSize : [])), root.style.fontSize]
    .filter(Boolean)
    .at(-1)
  return said === undefined || /em|%|ex|ch|lh|small|medium|large|i(?:nherit|nitial)|unset|revert/.test(said)
}
