/** Where sections are, and what may become one. */
import { isFixed } from '@waybell/core/contract'
import type { SurveyPart } from '@waybell/core/survey'
import type { SurveyRequest } from '../messages.ts'
import { elementAt } from '../stamps.ts'
import { backgroundOf } from './look.ts'

export function topsOf(request: SurveyRequest): Map<number, number> {
  const out = new Map<number, number>()
  const y = scrollY
  for (const { at } of request.parts) {
    const el = elementAt(at)
    if (el) out.set(at, el.getBoundingClientRect().top + y)
  }
  return out
}

export const ownMargins = (request: SurveyRequest): Map<number, number> =>
  new Map(
    request.parts.map(({ at }) => {
      const el = elementAt(at)
      return [at, el ? parseFloat(getComputedStyle(el).scrollMarginTop) || 0 : 0]
    }),
  )

/** @param movedBy what the page loses above each part once it has moved, in px */
export function partsNow(request: SurveyRequest, movedBy: ReadonlyMap<number, number>, margins: ReadonlyMap<number, number>): SurveyPart[] {
  const y = scrollY
  return request.parts.map(({ at, heading }): SurveyPart => {
    const el = elementAt(at)
    const box = el?.getBoundingClientRect()
    const top = (box?.top ?? 0) + y
    const headingBox = heading === null ? null : elementAt(heading)?.getBoundingClientRect()
    return {
      at,
      top,
      bottom: top + (box?.height ?? 0),
      movedTop: top + (movedBy.get(at) ?? 0),
      margin: margins.get(at) ?? 0,
      hasBox: !!el?.getClientRects().length && !isFixed(boxed(el), document.body),
      heading: headingBox?.height ? { top: top + headingBox.top - box!.top, bottom: top + headingBox.bottom - box!.top } : null,
      background: backgroundOf(el ?? null),
    }
  })
}

/** Of a part of a drawing, the drawing's surroundings say where it is held. */
const boxed = (el: Element): HTMLElement => {
  let e: Element | null = el
  while (e && !(e instanceof HTMLElement)) e = e.parentElement
  return e ?? document.body
}
