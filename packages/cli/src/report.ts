/** The report of a build. */
import {
  allArrive,
  outcomeText,
  partsByAt,
  solveArrivals,
  waysFrom,
  wayOf,
  type Arrival,
  type Finding,
  type Outcome,
  type Screen,
  type Site,
  type SitePage,
  type Survey,
  type TryVerdict,
} from '@waybell/core'

export interface BuildReport {
  file: string
  /** False without a browser, or after it crashed. */
  isMeasured: boolean
  sections: { id: string; title: string; depth: number }[]
  menus: { name: string; made: boolean; items: { label: string; target: string; assumed: boolean }[] }[]
  /** Computed arrivals by section and screen, in px; empty without measuring. */
  arrivals: (Pick<Arrival, 'land' | 'top' | 'gap' | 'shortfall'> & { screen: string; id: string; target: number })[]
  /** Null if not tried. */
  links: { screen: string; label: string; href: string; fault: string | null; why: string }[] | null
  /** The outcome of all links on all screens; null if not tried. */
  outcome: Outcome | null
  findings: Pick<Finding, 'code' | 'severity' | 'message' | 'line' | 'column'>[]
}

export function reportOf(
  file: string,
  site: Site,
  page: SitePage,
  surveys: Readonly<Record<string, Survey>>,
  judged: readonly JudgedScreen[] | null,
  outcome: Outcome | null,
  findings: readonly Finding[],
): BuildReport {
  const ways = waysFrom(page, site.pages)
  return {
    file,
    isMeasured: Object.keys(surveys).length > 0,
    sections: page.sections.map(({ id, title, depth }) => ({ id, title, depth })),
    menus: page.menus.map((menu) => ({
      name: menu.name,
      made: menu.form.kind !== 'found',
      items: menu.items.map(({ label, target, assumed = false }) => ({
        label,
        target: wayOf(target, ways).href ?? target.kind,
        assumed: assumed,
      })),
    })),
    arrivals: site.screens.flatMap(({ key }) => arrivalsOn(page, surveys[key])),
    links:
      judged?.flatMap(({ screen, verdicts }) =>
        verdicts.map(({ tried, fault, why }) => ({ screen: screen.key, label: tried.label, href: tried.href, fault, why })),
      ) ?? null,
    outcome,
    findings: findings.map(({ code, severity, message, line, column }) => ({ code, severity, message, line, column })),
  }
}

function arrivalsOn(page: SitePage, survey: Survey | undefined): BuildReport['arrivals'] {
  if (!survey) return []
  const sections = new Map(page.sections.map((s) => [s.key, s]))
  const parts = partsByAt(survey)
  return solveArrivals(page, survey)
    .filter((a) => a.movesPage)
    .map(({ section, land, top, gap, shortfall }) => {
      const { id, at } = sections.get(section)!
      return { screen: survey.screen, id, land, top, target: top - (parts.get(at)?.shift ?? 0), gap, shortfall }
    })
}

export interface JudgedScreen {
  screen: Screen
  verdicts: TryVerdict[]
}

/** One line per screen, one per wrong link, and a summary. */
export function tell(judged: readonly JudgedScreen[], outcome: Outcome, say: (line: string) => void): void {
  for (const { screen, verdicts } of judged) {
    const wrong = verdicts.filter((v) => v.fault)
    say(`${screen.name}: ${linksOf(verdicts.length)} tried, ${wrong.length} not right`)
    for (const { tried, why } of wrong) say(`  “${tried.label}” (${tried.href}) ${why}`)
  }
  if (outcome.tried || !allArrive(outcome)) say(`${linksOf(outcome.tried)} tried, ${outcomeText(outcome)}`)
  else say('no links to try')
}

const linksOf = (count: number): string => (count === 1 ? '1 link' : `${count} links`)

/** True when the build exits with 1. */
export const isWrong = ({ outcome, findings, isMeasured }: BuildReport, hasBrowser: boolean): boolean =>
  (outcome !== null && !allArrive(outcome)) || findings.some((f) => f.severity === 'error') || (hasBrowser && !isMeasured)
