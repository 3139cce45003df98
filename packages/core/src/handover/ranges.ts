/** Which viewports go by which screen's figures, as media queries: no visitor's viewport is as wide and high as a screen that was measured. */
import { plainScreens, type Screen } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

/** The bounds of what goes by one screen, in px; where one is absent there is none on that side. */
export interface Range {
  screen: Screen
  maxWidth?: number
  /** Above these, not at them: they are bounds of the next. */
  minWidth?: number
  maxHeight?: number
  minHeight?: number
  /** A phone that lies: only what lies as well goes by it, up to `maxHeight`. */
  isLow?: true
  /** Up to this height what lies goes by another. */
  lies?: number
}

/** Below this height a screen that lies is a phone that lies, in px. */
const LOW = 500
/** Below the larger, however near they are. */
const between = (a: number, b: number): number => Math.floor((a + b) / 2)

/** The widest and highest first, so that each holds against those before it in a style. Phones that lie come last. */
export const rangesOf = (screens: readonly Screen[]): Range[] => ordered(plainScreens(screens))

/** The screen by whose range a viewport goes, in px. */
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

/**
 * Surveys by screen, each said to be of the screen whose decisions hold there: larger text has none of its own.
 * @param measured as they were taken
 */
export function byDecisions(measured: Readonly<Record<string, Survey>>, screens: readonly Screen[]): Record<string, Survey> {
  const larger = screens.filter((s) => s.text && measured[s.key])
  if (!larger.length) return { ...measured }
  const ranges = rangesOf(screens)
  return { ...measured, ...Object.fromEntries(larger.map((s) => [s.key, goingBy(measured[s.key]!, rangeAt(s, ranges).screen.key)])) }
}

const known = new WeakMap<Survey, Survey>()

/** The same as long as nothing changed, so that what was computed of it stands. */
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

/** By width, and those of one width by height. */
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

/** Where a range holds against those before it; empty for all. @param more what is asked besides */
export const from = (range: Range, more = ''): string => query(upper(range), more)

/** Where a range holds and no other. @param more what is asked besides */
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

/** What goes by a range does so by the one before it too, as far as the style says. */
const isWithin = (inner: Range, outer: Range): boolean =>
  (outer.maxWidth === undefined || (inner.maxWidth !== undefined && inner.maxWidth <= outer.maxWidth)) &&
  (outer.maxHeight === undefined || (inner.maxHeight !== undefined && inner.maxHeight <= outer.maxHeight)) &&
  (!outer.isLow || !!inner.isLow)

/** Those whose figure has to be said, since what was said before is another. */
export const saidAnew = <T>(ranges: readonly Range[], figures: readonly T[]): { range: Range; figure: T }[] =>
  ranges.flatMap((range, i) =>
    i > 0 && String(figures[i]) === String(figures[i - 1]) && isWithin(range, ranges[i - 1]!) ? [] : { range, figure: figures[i]! },
  )

/** Ranges one below the other that have the same figure are one. */
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

/** The narrower begins where the wider ends, and both are of every height. */
const isNext = (wider: Range, narrower: Range): boolean =>
  wider.minWidth !== undefined &&
  wider.minWidth === narrower.maxWidth &&
  wider.isLow === narrower.isLow &&
  [wider, narrower].every((r) => r.minHeight === undefined && (r.isLow || r.maxHeight === undefined)) &&
  wider.maxHeight === narrower.maxHeight
