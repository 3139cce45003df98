/** Assigns viewports to screens with media queries, because visitors' viewports rarely equal a measured screen. */
import { plainScreens, type Screen } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { holds, mediaQuery, type Box } from './viewports.ts'

/** Bounds of the viewports that follow a screen, in px; absent for none. */
export interface Range {
  screen: Screen
  maxWidth?: number
  /** Exclusive: the next range includes them. */
  minWidth?: number
  maxHeight?: number
  minHeight?: number
  /** A landscape phone: only landscape viewports up to `maxHeight` follow it. */
  isLow?: true
  /** Landscape viewports up to this height follow another screen. */
  lies?: number
}

/** Landscape screens lower than this are phones, in px. */
const LOW = 500
/** Strictly below the larger. */
const between = (a: number, b: number): number => Math.floor((a + b) / 2)

/** Widest and highest first, so that later rules override earlier ones. Landscape phones come last. */
export const rangesOf = (screens: readonly Screen[]): Range[] => ordered(plainScreens(screens))

/** The range that a viewport follows, in px. */
const rangeAt = (size: Pick<Screen, 'width' | 'height'>, ranges: readonly Range[]): Range =>
  ranges.find((range) => only(range).some((box) => holds(box, size))) ?? ranges[0]!

/** Surveys by the screen whose decisions apply: screens with larger text have none of their own. @param measured as taken */
export function byDecisions(measured: Readonly<Record<string, Survey>>, screens: readonly Screen[]): Record<string, Survey> {
  const larger = screens.filter((s) => s.text && measured[s.key])
  if (!larger.length) return { ...measured }
  const ranges = rangesOf(screens)
  return { ...measured, ...Object.fromEntries(larger.map((s) => [s.key, goingBy(measured[s.key]!, rangeAt(s, ranges).screen.key)])) }
}

const known = new WeakMap<Survey, Survey>()

/** Cached, so that results computed from it stay valid. */
function goingBy(survey: Survey, screen: string): Survey {
  const before = known.get(survey)
  if (before?.screen === screen) return before
  const next = { ...survey, screen }
  known.set(survey, next)
  return next
}

function ordered(screens: readonly Screen[]): Range[] {
  const isLow = ({ width, height }: Screen) => height < LOW && width > height
  const high = screens.filter((s) => !isLow(s))
  const low = screens.filter(isLow)
  if (!high.length || !low.length) return inOrder(screens)
  const most = Math.max(...low.map((s) => s.height))
  const limit = Math.max(most, between(most, Math.min(...high.map((s) => s.height))))
  return [
    ...inOrder(high).map((range) => ({ ...range, lies: limit })),
    ...inOrder(low).map((range) => ({ ...range, isLow: true as const, maxHeight: Math.min(limit, range.maxHeight ?? limit) })),
  ]
}

/** By width, then by height. */
function inOrder(screens: readonly Screen[]): Range[] {
  const widths = [...new Set(screens.map((s) => s.width))].sort((a, b) => b - a)
  return widths.flatMap((width, w) => {
    const wider = widths[w - 1]
    const narrower = widths[w + 1]
    const same = screens.filter((s) => s.width === width).sort((a, b) => b.height - a.height)
    return same.map((screen, h): Range => {
      const higher = same[h - 1]
      const lower = same[h + 1]
      return {
        screen,
        ...(wider !== undefined && { maxWidth: between(width, wider) }),
        ...(narrower !== undefined && { minWidth: between(narrower, width) }),
        ...(higher && { maxHeight: between(screen.height, higher.height) }),
        ...(lower && { minHeight: between(lower.height, screen.height) }),
      }
    })
  })
}

const upper = ({ maxWidth, maxHeight, isLow }: Range): Box => ({
  ...(maxWidth !== undefined && { maxWidth }),
  ...(maxHeight !== undefined && { maxHeight }),
  ...(isLow && { orientation: 'landscape' }),
})

/** Media query for a range and all after it; empty for all. @param more a further condition */
export const from = (range: Range, more = ''): string => mediaQuery([upper(range)], more)!

/**
 * The viewports of a range alone.
 * @param heights further limits in px: higher than `over`, up to `upTo`
 */
export function only(range: Range, heights: { over?: number; upTo?: number } = {}): Box[] {
  const { minWidth, isLow, lies } = range
  const minHeight = Math.max(range.minHeight ?? 0, heights.over ?? 0)
  const maxHeight = Math.min(range.maxHeight ?? Infinity, heights.upTo ?? Infinity)
  const box: Box = {
    ...upper(range),
    ...(minWidth !== undefined && { minWidth }),
    ...(minHeight > 0 && { minHeight }),
    ...(maxHeight < Infinity && { maxHeight }),
  }
  if (isLow || lies === undefined) return [box]
  return [
    { ...box, minHeight: Math.max(minHeight, lies) },
    { ...box, orientation: 'portrait' },
  ]
}

/** True when the style applies the outer range's rules to the inner one too. */
const isWithin = (inner: Range, outer: Range): boolean =>
  (outer.maxWidth === undefined || (inner.maxWidth !== undefined && inner.maxWidth <= outer.maxWidth)) &&
  (outer.maxHeight === undefined || (inner.maxHeight !== undefined && inner.maxHeight <= outer.maxHeight)) &&
  (!outer.isLow || !!inner.isLow)

/** Ranges whose figure differs from the one that already applies, each with the screens that its figure is for. */
export function saidAnew<T>(ranges: readonly Range[], figures: readonly T[]): { range: Range; figure: T; screens: Screen[] }[] {
  const out: { range: Range; figure: T; screens: Screen[] }[] = []
  ranges.forEach((range, i) => {
    const figure = figures[i]!
    // Later rules may apply to parts of the range.
    const applying = out.slice(
      Math.max(
        0,
        out.findLastIndex((s) => isWithin(range, s.range)),
      ),
    )
    const same = applying.filter((s) => String(s.figure) === String(figure))
    if (i > 0 && same.length === applying.length) same[0]!.screens.push(range.screen)
    else out.push({ range, figure, screens: [range.screen] })
  })
  return out
}

/** Merges adjacent ranges with the same figure, or all. */
export function joined<T>(ranges: readonly Range[], figures: readonly T[]): { range: Range; figure: T }[] {
  const out: { range: Range; figure: T }[] = []
  if (ranges.length && figures.every((f) => f === figures[0])) return [{ range: { screen: ranges[0]!.screen }, figure: figures[0]! }]
  ranges.forEach((range, i) => {
    const figure = figures[i]!
    const last = out.at(-1)
    if (last && last.figure === figure && isNext(last.range, range)) {
      const { maxWidth } = last.range
      const joint: Range = { ...range, ...(maxWidth !== undefined && { maxWidth }) }
      if (maxWidth === undefined) delete joint.maxWidth
      last.range = joint
    } else out.push({ range, figure })
  })
  return out
}

/** True for ranges that meet in width and cover all heights. */
const isNext = (wider: Range, narrower: Range): boolean =>
  wider.minWidth !== undefined &&
  wider.minWidth === narrower.maxWidth &&
  wider.isLow === narrower.isLow &&
  [wider, narrower].every((r) => r.minHeight === undefined && (r.isLow || r.maxHeight === undefined)) &&
  wider.maxHeight === narrower.maxHeight
