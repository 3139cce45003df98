/** Positions of sections and candidates. */
import { isFixed } from '@waybell/core/contract'
import type { SurveyPart } from '@waybell/core/survey'
import type { SurveyRequest } from '../messages.ts'
import { asIfTargets } from '../page/rules.ts'
import { onPage, pageHolder, topOf, viewHeight } from '../page/scroller.ts'
import { elementAt } from '../page/stamps.ts'
import { asIf } from './as-if.ts'
import { backgroundOf, isTransparent } from './look.ts'
import { ownHeight } from './own-height.ts'

/** Tops of parts; for stuck ones, as if not stuck. */
export function topsOf(request: SurveyRequest): Map<number, number> {
  const parts = request.parts.flatMap(({ at }) => {
    const el = elementAt(at)
    return el ? [[at, el] as const] : []
  })
  const sticky = stickyAround(parts.map(([, el]) => el))
  const read = () => new Map(parts.map(([at, el]) => [at, topOf(el)]))
  return sticky.length
    ? asIf(
        sticky.map((el) => [el, UNSTUCK] as const),
        read,
      )
    : read()
}

/** Keeps its content, in its own place. */
const UNSTUCK = { position: 'relative', inset: 'auto' }

/** Sticky elements among elements and their ancestors. */
function stickyAround(els: readonly Element[]): HTMLElement[] {
  const seen = new Set<Element>()
  for (const el of els) for (let e: Element | null = el; e && e !== pageHolder() && !seen.has(e); e = e.parentElement) seen.add(e)
  return [...seen].filter((e): e is HTMLElement => e instanceof HTMLElement && getComputedStyle(e).position === 'sticky')
}

export const ownMargins = (request: SurveyRequest): Map<number, number> =>
  asIfTargets(
    () =>
      new Map(
        request.parts.map(({ at }) => {
          const el = elementAt(at)
          return [at, el ? parseFloat(getComputedStyle(el).scrollMarginTop) || 0 : 0]
        }),
      ),
  )

/** Max parts in the upper half of the screen to check. */
const MOST_LEADING = 4

/** Where parts near the top would start without margins, by trying it all at once, invisibly. The page is at its top. */
export function leadsOf(request: SurveyRequest): Map<number, number> {
  const near = [...topsOf(request)].filter(([, top]) => top < viewHeight() / 2).slice(0, MOST_LEADING)
  return new Map(
    near.flatMap(([at]) => {
      const el = elementAt(at)
      if (!(el instanceof HTMLElement)) return []
      return [[at, asIf([[el, { 'margin-top': '0', 'padding-top': '1px' }]], () => topOf(el))] as const]
    }),
  )
}

/** @param movedBy px that the page loses above each part after scrolling */
export function partsNow(
  request: SurveyRequest,
  movedBy: ReadonlyMap<number, number>,
  margins: ReadonlyMap<number, number>,
  leads: ReadonlyMap<number, number>,
  paint: ReadonlyMap<number, string[]>,
): SurveyPart[] {
  const holder = pageHolder()
  const tops = topsOf(request)
  const sticky = stickyAround(request.parts.flatMap(({ at }) => elementAt(at) ?? []))
  const slack = feetOf(request)
  return request.parts.map(({ at, heading, block }): SurveyPart => {
    const el = elementAt(at)
    const box = el?.getBoundingClientRect()
    const top = tops.get(at) ?? onPage(0)
    const headingBox = heading === null ? null : elementAt(heading)?.getBoundingClientRect()
    return {
      at,
      top,
      bottom: top + (box?.height ?? 0),
      left: box?.left ?? 0,
      movedTop: top + (movedBy.get(at) ?? 0),
      margin: margins.get(at) ?? 0,
      hasBox: !!el?.getClientRects().length && !isFixed(boxed(el), holder),
      heading: headingBox?.height ? { top: top + headingBox.top - box!.top, bottom: top + headingBox.bottom - box!.top } : null,
      shift: el ? shiftOf(el, block === null ? null : (elementAt(block) ?? null)) : 0,
      lead: leads.get(at) ?? 0,
      sticks: !!el && sticky.some((s) => s.contains(el)),
      ...(el ? frameOf(el) : { head: 0, foot: 0, frame: 0 }),
      ...(slack.has(at) && { foot: slack.get(at)! }),
      background: backgroundOf(el ?? null),
      grounds: paint.get(at) ?? [],
    }
  })
}

/** Max parts near the page's end to try. */
const MOST_ENDING = 8

/**
 * Parts near the page's end that are higher than their content, such as by a `min-height`, or in something that is: the padding below at
 * which the page has its present height, in px. Less adds nothing. By trying it, invisibly.
 */
function feetOf({ parts }: SurveyRequest): Map<number, number> {
  const drawn = parts.flatMap(({ at }) => {
    const el = elementAt(at)
    return el instanceof HTMLElement && el.getClientRects().length ? [{ at, el, box: el.getBoundingClientRect() }] : []
  })
  const end = Math.max(...drawn.map(({ box }) => box.bottom))
  const ending = drawn.filter(({ el, box }) => box.bottom >= end - 1.5 * viewHeight() && isLooseWithin(el))
  if (!ending.length) return new Map()
  const height = ownHeight()
  // The outermost first.
  const most = ending.sort((a, b) => b.box.height - a.box.height).slice(0, MOST_ENDING)
  return new Map(
    most.map(({ at, el, box }) => {
      const tried = parseFloat(getComputedStyle(el).paddingBottom) + 2 * box.height + viewHeight()
      const grown = asIf([[el, { 'padding-bottom': `${tried}px` }]], ownHeight) - height
      return [at, Math.max(0, tried - grown)]
    }),
  )
}

/** True when an element or one around it is higher than its content. */
function isLooseWithin(el: Element): boolean {
  for (let e: Element | null = el; e; e = e.parentElement) if (isLoose(e)) return true
  return false
}

function isLoose(el: Element): boolean {
  const content = document.createRange()
  content.selectNodeContents(el)
  const { paddingBottom, borderBottomWidth } = getComputedStyle(el)
  const margin = el.lastElementChild ? getComputedStyle(el.lastElementChild).marginBottom : '0'
  const rest = [paddingBottom, borderBottomWidth, margin].reduce((sum, length) => sum + (parseFloat(length) || 0), 0)
  return el.getBoundingClientRect().bottom - rest - content.getBoundingClientRect().bottom > 1
}

function frameOf(el: Element): Pick<SurveyPart, 'head' | 'foot' | 'frame'> {
  const style = getComputedStyle(el)
  const [foot, ...rest] = [style.paddingBottom, style.paddingTop, style.borderTopWidth, style.borderBottomWidth].map(
    (l) => parseFloat(l) || 0,
  )
  return { head: rest[0]!, foot: foot!, frame: style.boxSizing === 'border-box' ? 0 : rest.reduce((sum, l) => sum + l, foot!) }
}

/** Parts of a drawing are positioned by its container. */
const boxed = (el: Element): HTMLElement => {
  let e: Element | null = el
  while (e && !(e instanceof HTMLElement)) e = e.parentElement
  return e ?? document.body
}

/** Min shift, in px. */
const LEAST_SHIFT = 8

/**
 * How far a target was moved up so that a header doesn't cover its block: an empty one above it, or a block that starts with as much
 * padding as it was pulled up.
 */
function shiftOf(el: Element, block: Element | null): number {
  const top = el.getBoundingClientRect().top
  const shift = block ? block.getBoundingClientRect().top - top : pulledUp(el)
  return shift >= LEAST_SHIFT ? shift : 0
}

function pulledUp(el: Element): number {
  const style = getComputedStyle(el)
  const isBare =
    style.backgroundImage === 'none' && isTransparent(el) && style.boxShadow === 'none' && parseFloat(style.borderTopWidth) === 0
  const by = -parseFloat(style.marginTop)
  if (isBare && by > 0 && parseFloat(style.paddingTop) >= by - 1) return by
  const before = getComputedStyle(el, '::before')
  const lifted = before.content === 'none' ? 0 : -parseFloat(before.marginTop)
  return lifted > 0 && isBare && parseFloat(before.height) >= lifted - 1 ? lifted : 0
}
