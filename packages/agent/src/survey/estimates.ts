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

/** Containment of late parts, laid out or not: without it, margins of their content would collapse. @see CSS Containment 2 */
const KINDS = ['layout', 'style', 'paint']

/** @returns ends it */
export function layOut(late: readonly Late[]): () => void {
  const own = late.map(([, el]) => ({
    el,
    hasStyle: el.hasAttribute('style'),
    said: [LATE, 'contain'].map((name) => [name, el.style.getPropertyValue(name), el.style.getPropertyPriority(name)] as const),
  }))
  for (const [, el] of late) {
    const kinds = getComputedStyle(el).contain.split(' ')
    const contain = kinds[0] === 'strict' ? 'strict' : [...kinds.filter((k) => k.endsWith('size')), ...KINDS].join(' ')
    el.style.setProperty(LATE, 'visible', 'important')
    el.style.setProperty('contain', contain, 'important')
  }
  return () => {
    for (const { el, hasStyle, said } of own) {
      for (const [name, value, priority] of said)
        if (value) el.style.setProperty(name, value, priority)
        else el.style.removeProperty(name)
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
