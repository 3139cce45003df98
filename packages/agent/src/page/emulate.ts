/** What a screen has and a frame of its size has not: bars that lie over the page, and larger text. In sheets of its own, so that the document stays the page's. */
import type { Emulated } from '../messages.ts'
import { rulesNow } from './rules.ts'

const noBars = new CSSStyleSheet()
noBars.replaceSync('* { scrollbar-width: none; }')
const larger = new CSSStyleSheet()

function adopt(sheet: CSSStyleSheet, isOn: boolean): void {
  const others = document.adoptedStyleSheets.filter((s) => s !== sheet)
  if (document.adoptedStyleSheets.includes(sheet) !== isOn) document.adoptedStyleSheets = isOn ? [...others, sheet] : others
}

/** What was asked for last. */
let asked: Emulated

/**
 * A phone lays its bars over the page. Larger text is given to `html`, by which all that is said in `rem`, `em` or percent goes; what media queries
 * say in `em` does not follow, and what the page says in px stays, as it does for a visitor.
 */
export function emulate({ touch, text }: Emulated): void {
  asked = { touch, ...(text && { text }) }
  adopt(noBars, touch)
  // Its styles may still be on their way.
  if (document.readyState !== 'complete') addEventListener('load', () => emulate(asked), { once: true })
  if (!text && !document.adoptedStyleSheets.includes(larger)) return
  larger.replaceSync('')
  adopt(larger, !!text)
  const root = document.documentElement
  const usual = parseFloat(getComputedStyle(root).fontSize)
  if (text && followsVisitor(root)) larger.replaceSync(`html { font-size: ${(usual * text) / 100}px !important; }`)
}

/** The page's own size of text on its root goes by the visitor's: none is said, or in a unit that does. */
function followsVisitor(root: HTMLElement): boolean {
  const said = [...rulesNow().flatMap((r) => (root.matches(r.selectorText) ? r.style.fontSize : [])), root.style.fontSize]
    .filter(Boolean)
    .at(-1)
  return said === undefined || /em|%|ex|ch|lh|small|medium|large|i(?:nherit|nitial)|unset|revert/.test(said)
}
