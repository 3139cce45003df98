/** Padding that a header can lose, its own or that of an element in it, without moving anything. */
import type { SurveyHeader } from '@waybell/core/survey'
import { pageHeight } from '../page/scroller.ts'
import { positionOf } from '../page/stamps.ts'
import { asIf } from './as-if.ts'

/** px that remain of each padding. */
const LEAST = 2
/** Min gain, in px. */
const WORTH = 6
/** Max depth in the header. */
const DEEP = 4

const SIDES = ['bottom', 'top', null] as const

/** By trying it, all at once and invisibly. @param tops positions that must not move, in px */
export function givesOf(header: HTMLElement, tops: () => Iterable<number>): SurveyHeader['gives'] {
  let el: HTMLElement | undefined = header
  for (let depth = 0; el && depth < DEEP; el = onlyOne(el), depth++) {
    const at = positionOf(el)
    const { paddingTop, paddingBottom } = getComputedStyle(el)
    const [top, bottom] = [parseFloat(paddingTop), parseFloat(paddingBottom)]
    const by = Math.max(0, top - LEAST) + Math.max(0, bottom - LEAST)
    if (at === undefined || by < WORTH) continue
    // Nothing compensates for elements out of the flow.
    for (const side of getComputedStyle(header).position === 'fixed' ? ([null] as const) : SIDES) {
      const margin = side && { side, own: parseFloat(getComputedStyle(header)[side === 'top' ? 'marginTop' : 'marginBottom']) }
      if (isStill(header, el, by, margin, tops)) return { at, top, bottom, margin }
    }
  }
  return null
}

type Margin = NonNullable<SurveyHeader['gives']>['margin']

/** True when the header shrinks and nothing else moves. */
function isStill(header: HTMLElement, el: HTMLElement, by: number, margin: Margin, tops: () => Iterable<number>): boolean {
  const seen = () => [pageHeight(), ...tops()]
  const [before, height] = [seen(), header.offsetHeight]
  const { paddingTop, paddingBottom } = getComputedStyle(el)
  const padding = {
    'padding-top': `${Math.min(LEAST, parseFloat(paddingTop))}px`,
    'padding-bottom': `${Math.min(LEAST, parseFloat(paddingBottom))}px`,
  }
  const made = margin ? { [`margin-${margin.side}`]: `${margin.own + by}px` } : {}
  return asIf([...(el === header ? [] : [[el, padding] as const]), [header, el === header ? { ...padding, ...made } : made]], () => {
    const after = seen()
    return Math.abs(height - header.offsetHeight - by) <= 1 && after.every((px, i) => Math.abs(px - before[i]!) < 1)
  })
}

function onlyOne(el: HTMLElement): HTMLElement | undefined {
  const inFlow = [...el.children].filter(
    (kid): kid is HTMLElement =>
      kid instanceof HTMLElement && kid.getClientRects().length > 0 && !/absolute|fixed/.test(getComputedStyle(kid).position),
  )
  return inFlow.length === 1 ? inFlow[0] : undefined
}
