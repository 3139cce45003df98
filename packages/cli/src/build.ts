/** `waybell build`: the one press, unattended, the page with everything in it, and its links tried. */
import {
  defaultRule,
  defaultScreens,
  judgeTried,
  knownOf,
  leftAsItIs,
  looksOf,
  markText,
  mayPass,
  MENU,
  openFindings,
  ownMenusOf,
  pageEdits,
  parsePage,
  partsByAt,
  proposeSetUp,
  readParsed,
  SITE_VERSION,
  solveArrivals,
  stampPage,
  stopsElsewhere,
  wayOf,
  waysFrom,
  withMade,
  writePage,
  type Arrival,
  type Finding,
  type MeasuringTrouble,
  type Looks,
  type PageEdit,
  type Site,
  type SitePage,
  type Survey,
  type Screen,
  type Tried,
  type TryVerdict,
} from '@waybell/core'
import { scriptIn } from '@waybell/runtime'
import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve, sep } from 'node:path'
import pLimit from 'p-limit'
import type { Browser } from 'playwright-core'
import { textsOf } from './check.ts'
import { localFiles } from './files.ts'
import { measureOn, sourcePage, PageTrouble, tryOn, withBrowser, type OpenedPage } from './measure.ts'

export interface BuildOptions {
  pageFiles: readonly string[]
  out: string
  browser: string | undefined
  /** Whether the links of what was built are tried. */
  tries: boolean
  /** Whether the script is written small, and not to be read. */
  small: boolean
  say: (line: string) => void
}

export interface BuildReport {
  file: string
  sections: { id: string; title: string; depth: number }[]
  menus: { name: string; made: boolean; items: { label: string; target: string; takenToBe: boolean }[] }[]
  /** Where a link to each section stops on each screen, as computed, in px; none where nothing was measured. */
  arrivals: (Pick<Arrival, 'land' | 'top' | 'gap' | 'shortfall'> & { screen: string; id: string; target: number })[]
  /** Null where they were not tried. */
  links: { screen: string; label: string; href: string; fault: string | null; why: string }[] | null
  findings: Pick<Finding, 'code' | 'severity' | 'message' | 'line' | 'column'>[]
}

/** One page after the other, in one browser. */
export async function build({ pageFiles, browser, ...options }: BuildOptions): Promise<BuildReport[]> {
  const { say } = options
  const all = async (opened: Browser | null): Promise<BuildReport[]> => {
    const reports: BuildReport[] = []
    for (const pageFile of pageFiles)
      reports.push(await buildIn(opened, { ...options, pageFile, out: outOf(pageFile, pageFiles, options.out) }))
    return reports
  }
  if (browser && existsSync(browser)) {
    try {
      return await withBrowser(browser, all)
    } catch (error) {
      if (!isOfBrowser(error)) throw error
      say(`not measured: ${String(error).split('\n')[0]}. ${UNMEASURED}`)
    }
  } else
    say(
      `not measured: ${browser ? `there is no browser at ${browser}` : 'no Chromium was found; name one with --browser or WAYBELL_BROWSER'}. ${UNMEASURED}`,
    )
  return all(null)
}

/** Of several pages each goes into the folder that it has below the one that holds them all. */
function outOf(pageFile: string, pageFiles: readonly string[], out: string): string {
  const folders = pageFiles.map((f) => dirname(resolve(f)).split(sep))
  const shared = folders[0]!.findIndex((name, n) => folders.some((f) => f[n] !== name))
  const common = shared < 0 ? folders[0]!.length : shared
  return join(out, ...dirname(resolve(pageFile)).split(sep).slice(common))
}

const UNMEASURED = 'The script measures on arrival, the style carries an estimate.'
/** What the driver says, and no fault of the page's or the disk's. */
const isOfBrowser = (error: unknown): boolean => error instanceof Error && /browserType|page\.|browser|Target|Timeout/.test(error.message)

type PageOptions = Omit<BuildOptions, 'pageFiles' | 'browser'> & { pageFile: string }

/** What comes into a page by itself, and not while it loads, is there after so long, in ms. */
const LATE = 5000

/** @param wait before the page is measured, and its links are tried, in ms */
async function buildIn(browser: Browser | null, options: PageOptions, wait = 0): Promise<BuildReport> {
  const { pageFile, out, tries, small, say } = options
  const bytes = new Uint8Array(readFileSync(pageFile))
  const file = basename(pageFile)
  const { parsed, reading, surveys, troubles, source, found, missing } = await measured(browser, pageFile, bytes, wait)
  for (const path of missing) say(`missing: the page needs “${path}”, which is not there`)
  const setUp = proposeSetUp(reading, Object.values(surveys), defaultRule, new Set(readdirSync(dirname(resolve(pageFile)))))
  const page: SitePage = { key: 'p1', file, source: createHash('sha256').update(bytes).digest('hex'), title: reading.title, ...setUp }
  const site: Site = {
    format: 'way-bell-site',
    version: SITE_VERSION,
    name: reading.title || file,
    rule: defaultRule,
    screens: defaultScreens,
    pages: [page],
  }
  const { findings, undeclared, named } = knownOf({ parsed, reading, missing, ...textsOf(found) })
  const edits = pageEdits({
    page,
    pages: site.pages,
    reading,
    screens: site.screens,
    surveys,
    named: named.styles,
    runtime: scriptIn(small ? 'small' : 'plain'),
  })
  const handover = writePage(bytes, parsed, edits)
  mkdirSync(out, { recursive: true })
  for (const asset of found) {
    if (asset.path.startsWith('..')) {
      say(`not copied: “${asset.path}” lies outside the page's folder; put it in the same place beside ${out}`)
      continue
    }
    const to = join(out, asset.path)
    if (resolve(to) === resolve(asset.file)) continue
    mkdirSync(dirname(to), { recursive: true })
    copyFileSync(asset.file, to)
  }
  writeWhole(join(out, file), handover.bytes)
  writeWhole(join(out, 'site.json'), JSON.stringify(site, null, 2) + '\n')
  if (!setUp.sections.length) say('no sections: the page has no part that a menu could lead to')
  say(`${join(out, file)}: ${setUp.sections.length} sections, ${setUp.menus.flatMap((m) => m.items).length} menu items`)

  const kept = leftAsItIs(page)
  if (kept) say(kept)

  // What was measured is the page as it came; an earlier handover's header keeps its place in it as it will in this one.
  const asBuilt = Object.fromEntries(Object.entries(surveys).map(([key, survey]) => [key, withMade(survey, page)]))
  const tried: Record<string, Tried[]> = {}
  let links: BuildReport['links'] = null
  if (browser && tries && !isOut(troubles)) {
    // Menus that the page marks by itself carry nothing of ours; to be tried they are named.
    const ownMenus = ownMenusOf(page, surveys).map(({ at, mark }): PageEdit => ({
      kind: 'attribute',
      at,
      name: MENU,
      value: mark.name ? markText(mark) : '',
    }))
    const written = writePage(bytes, parsed, [...edits, ...ownMenus]).bytes
    const again = parsePage(written)
    // With all that was written; its elements are named, so that what scripts build is told from them.
    const stamped = stampPage(written, { ...again, tree: { ...again.tree, written: [] } }, '')
    const built: OpenedPage = { ...source, html: Buffer.from(stamped) }
    links = []
    const judge = (screen: Screen, seen: Tried[]) => judgeTried(page, asBuilt[screen.key] ?? null, seen)
    Object.assign(
      tried,
      await unlessOut(site.screens, troubles, (screen) => tryOn(browser, built, screen, wait, (one) => mayPass(judge(screen, [one])[0]!))),
    )
    const judged = site.screens.flatMap((screen) => (tried[screen.key] ? { screen, verdicts: judge(screen, tried[screen.key]!) } : []))
    if (!wait && judged.some(({ verdicts }) => verdicts.some(stopsElsewhere))) {
      say('links stop elsewhere than computed: the page is measured once more, after it has had time to come to rest')
      return buildIn(browser, options, LATE)
    }
    for (const { screen, verdicts } of judged) {
      for (const { tried: one, fault, why } of verdicts) links.push({ screen: screen.key, label: one.label, href: one.href, fault, why })
      tell(screen.name, verdicts, say)
    }
  }
  const open = openFindings(
    { site, page, reading, undeclared, named, known: new Set(), surveys: asBuilt, tried, trouble: worstOf(troubles) },
    findings,
  )
  for (const { code, message } of open) if (code === 'not-measured') say(message)
  const ways = waysFrom(page, site.pages)
  return {
    file: join(out, file),
    sections: page.sections.map(({ id, title, depth }) => ({ id, title, depth })),
    menus: page.menus.map((menu) => ({
      name: menu.name,
      made: menu.form.kind !== 'found',
      items: menu.items.map(({ label, target, takenToBe = false }) => ({
        label,
        target: wayOf(target, ways).href ?? target.kind,
        takenToBe,
      })),
    })),
    arrivals: site.screens.flatMap(({ key }) => arrivalsOn(page, asBuilt[key])),
    links,
    findings: open.map(({ code, severity, message, line, column }) => ({ code, severity, message, line, column })),
  }
}

function arrivalsOn(page: SitePage, survey: Survey | undefined): BuildReport['arrivals'] {
  if (!survey) return []
  const sections = new Map(page.sections.map((s) => [s.key, s]))
  const parts = partsByAt(survey)
  return solveArrivals(page, survey)
    .filter((a) => a.moves)
    .map(({ section, land, top, gap, shortfall }) => {
      const { id, at } = sections.get(section)!
      return { screen: survey.screen, id, land, top, target: top - (parts.get(at)?.shift ?? 0), gap, shortfall }
    })
}

/** So many at once: most of it is waiting for what a page answers. */
const SCREENS_AT_ONCE = 3

/** What came of each, by its key. */
async function onScreens<T>(screens: readonly Screen[], work: (screen: Screen) => Promise<T>): Promise<Record<string, T>> {
  const limit = pLimit(SCREENS_AT_ONCE)
  return Object.fromEntries(await Promise.all(screens.map((screen) => limit(async () => [screen.key, await work(screen)] as const))))
}

/** Nothing more is to be had from the page. */
const isOut = (troubles: ReadonlySet<MeasuringTrouble>): boolean => troubles.has('silent') || troubles.has('reloads')

const worstOf = (troubles: ReadonlySet<MeasuringTrouble>): MeasuringTrouble | null =>
  (['silent', 'reloads', 'restless'] as const).find((t) => troubles.has(t)) ?? null

/** What came of each screen on which something did; a page that gives nothing on one is not waited for on the rest. */
async function unlessOut<T>(
  screens: readonly Screen[],
  troubles: Set<MeasuringTrouble>,
  work: (screen: Screen) => Promise<T>,
): Promise<Record<string, T>> {
  const all = await onScreens(screens, async (screen) => {
    if (isOut(troubles)) return null
    try {
      return await work(screen)
    } catch (error) {
      if (!(error instanceof PageTrouble)) throw error
      troubles.add(error.kind)
      return null
    }
  })
  return Object.fromEntries(Object.entries(all).flatMap(([key, seen]) => (seen === null ? [] : [[key, seen]])))
}

/** The page as it is read, and measured where there is a browser; where it has no headings but by their look, read once more with these. */
async function measured(browser: Browser | null, pageFile: string, bytes: Uint8Array, wait: number, looks: Looks = []) {
  const parsed = parsePage(bytes, looks)
  const reading = readParsed(parsed, bytes.length, basename(pageFile))
  const files = localFiles(pageFile, reading)
  const surveys: Record<string, Survey> = {}
  const troubles = new Set<MeasuringTrouble>()
  const source = sourcePage(pageFile, bytes, parsed, files.found)
  if (browser)
    for (const [key, seen] of Object.entries(
      await unlessOut(defaultScreens, troubles, (screen) => measureOn(browser, source, reading, screen, wait)),
    )) {
      surveys[key] = seen.survey
      if (seen.isRestless) troubles.add('restless')
    }
  const seen = looksOf(Object.values(surveys))
  if (seen.length && !looks.length) return measured(browser, pageFile, bytes, wait, seen)
  return { parsed, reading, surveys, troubles, source, ...files }
}

/** One line for a screen, and one for each link that is not right. */
function tell(screen: string, verdicts: readonly TryVerdict[], say: (line: string) => void): void {
  const wrong = verdicts.filter((v) => v.fault)
  if (!verdicts.length) return say(`${screen}: no link to try`)
  say(`${screen}: ${verdicts.length} links tried, ${wrong.length ? `${wrong.length} not right` : 'all arrive'}`)
  for (const { tried, why } of wrong) say(`  “${tried.label}” (${tried.href}) ${why}`)
}

/** Whole or not at all, so that a full disk leaves no half page. */
function writeWhole(file: string, content: Uint8Array | string): void {
  writeFileSync(`${file}.part`, content)
  renameSync(`${file}.part`, file)
}
