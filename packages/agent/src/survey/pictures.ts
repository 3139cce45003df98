/** Pictures without size, and whether they can get one. */
import { SIZED, SIZED_RULE } from '@waybell/core/contract'
import type { SurveyPicture } from '@waybell/core/survey'
import type { SurveyRequest } from '../messages.ts'
import { pageHeight } from '../page/scroller.ts'
import { positionOf } from '../page/stamps.ts'
import { asIf } from './as-if.ts'
import { topsOf } from './parts.ts'

const MOST = 500
/** Less than this isn't a move, in px. */
const STILL = 1 / 32

interface Picture {
  el: HTMLImageElement
  at: number
}

/** By trying it, all at once, invisibly. The page is at its top, with pictures loaded. */
export function picturesOf(request: SurveyRequest): SurveyPicture[] {
  const unsaid = [...document.images].flatMap((el): Picture[] => {
    const at = positionOf(el)
    return at !== undefined && saysNone(el) ? [{ el, at }] : []
  })
  const late = moving(unsaid.slice(0, MOST), request)
  // With a width set, a height limit breaks the proportions.
  const free = late.filter(({ el }) => getComputedStyle(el).maxHeight === 'none')
  const fitting = new Set(fits(free, request))
  return late.map((one) => ({ at: one.at, width: one.el.naturalWidth, height: one.el.naturalHeight, fits: fitting.has(one) }))
}

const saysNone = (el: HTMLImageElement): boolean =>
  !el.hasAttribute('width') &&
  !el.hasAttribute('height') &&
  el.naturalWidth > 0 &&
  el.naturalHeight > 0 &&
  // Inline data loads with the page.
  !el.currentSrc.startsWith('data:') &&
  el.getClientRects().length > 0

/** Max pictures checked for movement. */
const MOST_ASKED = 40

/** Pictures that would move something if their files had other proportions; found by halving. */
function moving(pictures: readonly Picture[], request: SurveyRequest): readonly Picture[] {
  const seen = () => [pageHeight(), ...topsOf(request).values()]
  const before = seen()
  const others = pictures.map(({ el }) => [el, { 'aspect-ratio': `${el.naturalWidth} / ${el.naturalHeight * 3 + 50}` }] as const)
  if (!pictures.length || asIf(others, seen).every((px, i) => Math.abs(px - before[i]!) < 1)) return []
  if (pictures.length === 1 || pictures.length > MOST_ASKED) return pictures
  const middle = pictures.length >> 1
  return [...moving(pictures.slice(0, middle), request), ...moving(pictures.slice(middle), request)]
}

/** Pictures that can get sizes together; found by halving. */
function fits(pictures: readonly Picture[], request: SurveyRequest): readonly Picture[] {
  if (!pictures.length || stays(pictures, request)) return pictures
  if (pictures.length === 1) return []
  const middle = pictures.length >> 1
  const both = [...fits(pictures.slice(0, middle), request), ...fits(pictures.slice(middle), request)]
  return both.length && stays(both, request) ? both : []
}

function stays(pictures: readonly Picture[], request: SurveyRequest): boolean {
  const seen = () => [
    pageHeight(),
    ...topsOf(request).values(),
    ...pictures.flatMap(({ el }) => {
      const { x, y, width, height } = el.getBoundingClientRect()
      return [x, y, width, height]
    }),
  ]
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(SIZED_RULE)
  return asIf(
    pictures.map(({ el }) => [el, {}] as const),
    () => {
      const before = seen()
      try {
        document.adoptedStyleSheets.push(sheet)
        for (const { el } of pictures)
          for (const [name, value] of [[SIZED, ''] as const, ['width', el.naturalWidth] as const, ['height', el.naturalHeight] as const])
            el.setAttribute(name, String(value))
        return seen().every((px, i) => Math.abs(px - before[i]!) <= STILL)
      } finally {
        document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== sheet)
        for (const { el } of pictures) for (const name of [SIZED, 'width', 'height']) el.removeAttribute(name)
      }
    },
  )
}
