/** Late parts: laid out while measuring, so nothing is measured from an estimate. */
import type { SurveyEstimate } from '@waybell/core/survey'
import { everyElement } from '../page/stamps.ts'
import { asIf } from './as-if.ts'

const MOST = 2000
const LATE = 'content-visibility'

type Late = readonly [at: number, el: HTMLElement]

export const lateElements = (): Late[] =>
  [...everyElement()]
    .flatMap(([at, el]): Late[] => (el instanceof HTMLElement && getComputedStyle(el).getPropertyValue(LATE) === 'auto' ? [[at, el]] : []))
    .slice(0, MOST)

/** @returns ends it */
export function layOut(late: readonly Late[]): () => void {
  const own = late.map(
    ([, el]) => [el, el.style.getPropertyValue(LATE), el.style.getPropertyPriority(LATE), el.hasAttribute('style')] as const,
  )
  for (const [, el] of late) el.style.setProperty(LATE, 'visible', 'important')
  return () => {
    for (const [el, value, priority, hasStyle] of own) {
      if (value) el.style.setProperty(LATE, value, priority)
      else el.style.removeProperty(LATE)
      if (!hasStyle && !el.getAttribute('style')) el.removeAttribute('style')
    }
  }
}

/** Less than this is an empty box's height, in px. */
const BARE = 7

/** While laid out: those as high as their content. */
export function estimatesOf(late: readonly Late[]): SurveyEstimate[] {
  const heights = () => late.map(([, el]) => contentHeight(el))
  const laidOut = heights()
  const bare = asIf(
    late.map(([, el]) => [el, { [LATE]: 'hidden', 'contain-intrinsic-height': `${BARE}px` }] as const),
    heights,
  )
  return late.flatMap(([at, el], i) => {
    if (!el.getClientRects().length || Math.abs(bare[i]! - BARE) >= 1) return []
    const said = parseFloat(getComputedStyle(el).getPropertyValue('contain-intrinsic-height').replace('auto', '')) || 0
    return [{ at, height: laidOut[i]!, said }]
  })
}

function contentHeight(el: HTMLElement): number {
  const style = getComputedStyle(el)
  const around = [style.paddingTop, style.paddingBottom, style.borderTopWidth, style.borderBottomWidth]
  return Math.max(
    0,
    around.reduce((left, length) => left - (parseFloat(length) || 0), el.getBoundingClientRect().height),
  )
}
