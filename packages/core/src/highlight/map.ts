/** The bell map of a screen, and the best place for the bell line. */
import { coverOf, isOwnTravel, partsByAt, partOf, solveArrivals, standsAbove, type Arrival } from '../arrival/index.ts'
import { viewHeight, type Survey, type SurveyPart } from '../survey/index.ts'
import { adjustOn, type Section, type SitePage } from '../site/index.ts'
import { bells } from './rule.ts'

export interface Stretch {
  /** Key of the current section; null before the first. */
  section: string | null
  /** Scroll positions in px; `end` is exclusive, but for the last. */
  start: number
  end: number
}

interface Placed {
  /** Null for what scripts of the page build: it rings as sections do, and is none of ours. */
  section: Section | null
  part: Pick<SurveyPart, 'top' | 'bottom' | 'movedTop'>
  /** Where the script takes it to begin once the page has moved. */
  begins: number
}

const topsOf = (page: SitePage, survey: Survey): Placed[] => {
  const parts = partsByAt(survey)
  const own = page.sections.flatMap((section): Placed[] => {
    const part = partOf(section, parts)
    if (!part?.hasBox) return []
    // Of what the page moved up the script knows that by the margin that was written for it, and that holds the adjustment too.
    return [
      { section, part, begins: part.movedTop - (standsAbove(section, part) && !isOwnTravel(page) ? adjustOn(section, survey.screen) : 0) },
    ]
  })
  const ids = new Set(page.sections.flatMap((s) => [s.id, ...s.former]))
  const built = survey.built.targets.filter((t) => !ids.has(t.id)).map((part): Placed => ({ section: null, part, begins: part.movedTop }))
  return built.length ? [...own, ...built].sort((a, b) => a.part.top - b.part.top) : own
}

/** Stretches of scroll positions with their current section; they cover [0, maxScroll] exactly once. */
export function bellMap(page: SitePage, survey: Survey): Stretch[] {
  const placed = topsOf(page, survey)
  if (!placed.length) return [{ section: null, start: 0, end: survey.maxScroll }]
  if (survey.maxScroll <= 0) return [{ section: placed[0]!.section?.key ?? null, start: 0, end: 0 }]
  const line = coverOf(page, survey).arrival + page.highlight.bellOffset
  const sorted = bells(
    placed.map((p) => p.begins),
    line,
    survey.maxScroll,
  )
  const out: Stretch[] = []
  if (sorted[0]!.bell > 0) out.push({ section: null, start: 0, end: Math.min(sorted[0]!.bell, survey.maxScroll) })
  sorted.forEach(({ index, bell }, i) => {
    const start = Math.max(0, bell)
    const end = Math.min(sorted[i + 1]?.bell ?? survey.maxScroll, survey.maxScroll)
    if (end > start || (i === sorted.length - 1 && end === start)) out.push({ section: placed[index]!.section?.key ?? null, start, end })
  })
  return out
}

export interface Band {
  /** Bell offsets in px for which every link that reaches its place lights its own item: [low, high). */
  low: number
  high: number
}

/** The safe band over all screens; empty where `low >= high`. */
export function safeBand(page: SitePage, surveys: readonly Survey[]): Band {
  const band: Band = { low: 0, high: Infinity }
  for (const survey of surveys) {
    const cover = coverOf(page, survey).arrival
    const arrivals = new Map<string, Arrival>(solveArrivals(page, survey).map((a) => [a.section, a]))
    const placed = topsOf(page, survey)
    placed.forEach(({ section, part, begins }, i) => {
      const arrival = section && arrivals.get(section.key)
      if (!arrival || arrival.shortfall > 0 || section.toTop) return
      band.low = Math.max(band.low, begins - arrival.land - cover)
      let after = i + 1
      while (after < placed.length && placed[after]!.part.top < part.bottom - 1) after++
      const next = placed[after]
      if (next) band.high = Math.min(band.high, next.begins - arrival.land - cover)
    })
  }
  return band
}

/**
 * The best bell offset: the middle of the safe band, or of what of it lies in the upper third of the smallest viewport. In whole px where
 * the band has one.
 */
export function bestBellOffset(page: SitePage, surveys: readonly Survey[]): number {
  const { low, high } = safeBand(page, surveys)
  const third = Math.min(...surveys.map((s) => viewHeight(s) / 3 - coverOf(page, s).arrival))
  const top = Math.min(high, third)
  const middle = top > low ? (low + top) / 2 : low
  const isSafe = (offset: number) => offset >= low && offset < high
  const whole = [Math.ceil(middle), Math.floor(middle)].find(isSafe)
  // Between two whole ones, as precisely as a length is written.
  return whole ?? [Math.round(middle * 100) / 100, middle].find(isSafe) ?? Math.ceil(low)
}
