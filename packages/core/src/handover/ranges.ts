/** Assigns viewports to screens with media queries, because visitors' viewports rarely equal a measured screen. */
import { plainScreens, type Screen } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

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

/** The screen that a viewport follows, in px. */
function rangeAt({ width, height }: Pick<Screen, 'width' | 'height'>, ranges: readonly Range[]): Range {
  const lies = width > height
  const isIn = (r: Range) =>
    width <= (r.maxWidth ?? width) &&
    width > (r.minWidth ?? 0) &&
    height <= (r.maxHeight ?? height) &&
    height > (r.minHeight ?? 0) &&
    (!r.isLow || lies) &&
    (r.lies === undefined || !lies || height > r.lies)
  return ranges.find(isIn) ?? ranges[0]!
}

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

const LIES = '(orientation: landscape)'
const over = (name: string, bound: number) => `(min-${name}: ${bound + 0.02}px)`
const query = (...parts: string[]): string => parts.filter(Boolean).join(' and ')

const upper = ({ maxWidth, maxHeight, isLow }: Range): string =>
  query(
    maxWidth === undefined ? '' : `(max-width: ${maxWidth}px)`,
    maxHeight === undefined ? '' : `(max-height: ${maxHeight}px)`,
    isLow ? LIES : '',
  )

/** Media query for a range and all after it; empty for all. @param more a further condition */
export const from = (range: Range, more = ''): string => query(upper(range), more)

/** Media query for a range alone. @param more a further condition */
export function only(range: Range, more = ''): string {
  const { minWidth, minHeight, lies } = range
  const within = query(
    upper(range),
    minWidth === undefined ? '' : over('width', minWidth),
    minHeight === undefined ? '' : over('height', minHeight),
    more,
  )
  return lies === undefined ? within : [over('height', lies), '(orientation: portrait)'].map((is) => query(within, is)).join(', ')
}

/** True when the style applies the outer range's rules to the inner one too. */
const isWithin = (inner: Range, outer: Range): boolean =>
  (outer.maxWidth === undefined || (inner.maxWidth !== undefined && inner.maxWidth <= outer.maxWidth)) &&
  (outer.maxHeight === undefined || (inner.maxHeight !== undefined && inner.maxHeight <= outer.maxHeight)) &&
  (!outer.isLow || !!inner.isLow)

/** Ranges whose figure differs from the one that already applies. */
export const saidAnew = <T>(ranges: readonly Range[], figures: readonly T[]): { range: Range; figure: T }[] =>
  ranges.flatMap((range, i) =>
    i > 0 && String(figures[i]) === String(figures[i - 1]) && isWithin(range, ranges[i - 1]!) ? [] : { range, figure: figures[i]! },
  )

/** Merges adjacent ranges with the same figure. */
export function joined<T>(ranges: readonly Range[], figures: readonly T[]): { range: Range; figure: T }[] {
  const out: { range: Range; figure: T }[] = []
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
