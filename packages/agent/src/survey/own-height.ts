/** The height of a page's content. */
import { pageHeight, pageHolder, viewHeight } from '../page/scroller.ts'
import { asIf } from './as-if.ts'

/** Content height: if less than the visible height, inserting something above shows where it ends. */
export function ownHeight(): number {
  const [high, view] = [pageHeight(), viewHeight()]
  if (high > view) return high
  const holder = pageHolder()
  const first = [...holder.children].find((el) => el.getClientRects().length && !/absolute|fixed/.test(getComputedStyle(el).position))
  const firstTop = () => first?.getBoundingClientRect().top ?? 0
  const top = firstTop()
  const before = view + parseFloat(getComputedStyle(holder).paddingTop)
  // By as much as all moved down; margins may separate, which a bar there doesn't cause.
  const read = () => pageHeight() - (first ? firstTop() - top : view)
  return asIf([[holder, { 'box-sizing': 'border-box', 'padding-top': `${before}px` }]], read)
}
