/** The bell map of a screen, and the best bell line. */
import { coverOf, isOwnTravel, partsByAt, partOf, solveArrivals, standsAbove, type Arrival } from '../arrival/index.ts'
import { viewHeight, type Survey, type SurveyPart } from '../survey/index.ts'
import { adjustOn, type Section, type SitePage } from '../site/index.ts'
import { bells } from './rule.ts'

export interface Stretch {
  /** Key of the current section; null before the first. */
  section: string | null
  /** Scroll positions in px; `end` is exclusive, except for the last. */
  start: number
  end: number
}

interface Placed {
  /** Null for targets built by scripts: they ring like sections. */
  section: Section | null
  part: Pick<SurveyPart, 'top' | 'bottom' | 'movedTop'>
  /** Where it starts for the script, after scrolling. */
  begins: number
}

const topsOf = (page: SitePage, survey: Survey): Placed[] => {
  const parts = partsByAt(survey)
  const own = page.sections.flatMap((section): Placed[] => {
    const part = partOf(section, parts)
    if (!part?.hasBox) return []
    // For targets that the page moved up, the script reads the written margin, which includes the extra offset.
    return [
      { section, part, begins: part.movedTop - (standsAbove(section, part) && !isOwnTravel(page) ? adjustOn(section, survey.screen) : 0) },
    ]
  })
  const ids = new Set(page.sections.flatMap((s) => [s.id, ...s.former]))
  const built = survey.built.targets.filter((t) => !ids.has(t.id)).map((part): Placed => ({ section: null, part, begins: part.movedTop }))
  return built.length ? [...own, ...built].sort((a, b) => a.part.top - b.part.top) : own
}

/** Stretches of scroll positions with their current section; they cover [0, maxScroll] without gaps. */
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
  /** Bell offsets in px with which every link that arrives marks its own item: [low, high). */
  low: number
  high: number
}

/** The safe band over all screens; empty if `low >= high`. */
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

/** The best bell offset: the middle of the safe band, limited to the upper third of the smallest viewport; whole px if possible. */
export function bestBellOffset(page: SitePage, surveys: readonly Survey[]): number {
  const { low, high } = safeBand(page, surveys)
  const third = Math.min(...surveys.map((s) => viewHeight(s) / 3 - coverOf(page, s).arrival))
  const top = Math.min(high, third)
  const middle = top > low ? (low + top) / 2 : low
  const isSafe = (offset: number) => offset >= low && offset < high
  const whole = [Math.ceil(middle), Math.floor(middle)].find(isSafe)
  // Between two whole px, with two decimals.
  return whole ?? [Math.round(middle * 100) / 100, middle].find(isSafe) ?? Math.ceil(low)
}
