/** Builds a page: reads, measures, sets up, writes, and tries its links. */
import {
  defaultRule,
  judgeTried,
  knownMenusOf,
  knownOf,
  leftAsItIs,
  looksOf,
  mayPass,
  openFindings,
  outcomeOf,
  pageEdits,
  parsePage,
  proposeSetUp,
  readParsed,
  SITE_VERSION,
  stampEdits,
  stampPage,
  stopsElsewhere,
  withMade,
  writePage,
  type Looks,
  type MeasuringTrouble,
  type PageEdit,
  type PageReading,
  type ParsedPage,
  type Screen,
  type Site,
  type SitePage,
  type Survey,
  type Tried,
} from '@waybell/core'
import { mountFolder, type DrivenBrowser } from '@waybell/driver'
import { scriptIn } from '@waybell/runtime'
import { createHash } from 'node:crypto'
import { copyFileSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { textsOf } from './check.ts'
import { localFiles, type LocalFile } from './files.ts'
import { OpenPage } from './measure.ts'
import { reportOf, tell, type BuildReport, type JudgedScreen } from './report.ts'

export interface PageOptions {
  pageFile: string
  /** Folder. */
  out: string
  /** Pages of the same site built before; this one is added. */
  pages: SitePage[]
  /** The site's screens, for measuring and trying. */
  screens: readonly Screen[]
  /** Whether to try the links. */
  tries: boolean
  /** True for a minified script. */
  small: boolean
  say: (line: string) => void
}

/** Wait for content that pages load after `load`, in ms of page time. */
const LATE = 5000

/** @param browser null to build without measuring. @throws BrowserGone when it crashes */
export async function buildPage(browser: DrivenBrowser | null, options: PageOptions): Promise<BuildReport> {
  const { pageFile, out, say } = options
  const source = readSource(pageFile, new Uint8Array(readFileSync(pageFile)))
  for (const path of source.missing) say(`missing: the page uses “${path}”, which does not exist`)
  const outside = copyFiles(source.found, out)
  for (const path of outside) say(`not copied: “${path}” lies outside the page's folder; put it in the same place beside ${out}`)
  const first = await buildOnce(browser, source, options, 0)
  if (!first.stopElsewhere) return first.report()
  say('links stop elsewhere than computed; measuring the page again after it has settled')
  return (await buildOnce(browser, source, options, LATE)).report()
}

interface Source {
  pageFile: string
  bytes: Uint8Array
  parsed: ParsedPage
  reading: PageReading
  found: LocalFile[]
  missing: ReadonlySet<string>
}

/** @param looks headings by look, for a page without heading tags */
function readSource(pageFile: string, bytes: Uint8Array, looks: Looks = []): Source {
  const parsed = parsePage(bytes, looks)
  const reading = readParsed(parsed, bytes.length, basename(pageFile))
  return { pageFile, bytes, parsed, reading, ...localFiles(pageFile, reading) }
}

const mountOf = ({ pageFile, parsed, found }: Source, html: Uint8Array) =>
  mountFolder(pageFile, Buffer.from(html), parsed.decoded.encoding, found)

interface Built {
  /** Links stop elsewhere without a reason on the page: it may have changed since it was measured. */
  stopElsewhere: boolean
  /** Makes the report. */
  report: () => BuildReport
}

/** @param wait before measuring, in ms of page time */
async function buildOnce(browser: DrivenBrowser | null, source: Source, options: PageOptions, wait: number): Promise<Built> {
  const open = browser && new OpenPage(browser, mountOf(source, stampPage(source.bytes, source.parsed, '')), options.screens)
  try {
    const measured = open ? await measure(open, source, wait) : { source, surveys: {} }
    const work = setUp(measured.source, measured.surveys, options)
    const file = write(work, options)
    const tried = open && options.tries && !open.isOut ? await tryLinks(browser, open, work, wait) : null
    const judged = tried && work.site.screens.flatMap((screen) => judgedOn(work, screen, tried))
    return {
      stopElsewhere: !!judged?.some(({ verdicts }) => verdicts.some(stopsElsewhere)),
      report: () => {
        options.pages.push(work.page)
        return told(work, file, judged, tried, open ? worstOf(open.troubles) : null, options.say)
      },
    }
  } finally {
    await open?.close()
  }
}

/** The surveys; with headings by look, those of the second reading. */
async function measure(open: OpenPage, source: Source, wait: number): Promise<{ source: Source; surveys: Record<string, Survey> }> {
  const surveys = await open.measure(source.reading, wait)
  const looks = looksOf(Object.values(surveys))
  if (!looks.length) return { source, surveys }
  const again = readSource(source.pageFile, source.bytes, looks)
  return { source: again, surveys: await open.measure(again.reading, 0) }
}

/** A page as handed over. */
interface Work {
  source: Source
  site: Site
  page: SitePage
  /** Of the page as it came. */
  surveys: Record<string, Survey>
  /** With the made menu. */
  asBuilt: Record<string, Survey>
  known: ReturnType<typeof knownOf>
  edits: PageEdit[]
}

function setUp(source: Source, surveys: Record<string, Survey>, { pageFile, pages, screens, small }: PageOptions): Work {
  const { bytes, parsed, reading, found, missing } = source
  const file = basename(pageFile)
  const setUp = proposeSetUp(reading, Object.values(surveys), defaultRule, new Set(readdirSync(dirname(resolve(pageFile)))))
  const key = `p${pages.length + 1}`
  const page: SitePage = { key, file, source: createHash('sha256').update(bytes).digest('hex'), title: reading.title, ...setUp }
  const site: Site = {
    format: 'way-bell-site',
    version: SITE_VERSION,
    name: (pages[0] ?? page).title || file,
    rule: defaultRule,
    screens: [...screens],
    pages: [...pages, page],
  }
  const known = knownOf({ parsed, reading, missing: new Set(missing), ...textsOf(found) })
  const edits = pageEdits({
    page,
    pages: site.pages,
    reading,
    screens: site.screens,
    surveys,
    named: known.named.styles,
    runtime: scriptIn(small ? 'small' : 'plain'),
  })
  // An earlier handover's header keeps its space as it will in this one.
  const asBuilt = Object.fromEntries(Object.entries(surveys).map(([screen, survey]) => [screen, withMade(survey, page)]))
  return { source, site, page, surveys, asBuilt, known, edits }
}

/** @returns paths outside the page's folder */
function copyFiles(found: readonly LocalFile[], out: string): string[] {
  for (const { path, file } of found) {
    const to = join(out, path)
    if (path.startsWith('..') || resolve(to) === resolve(file)) continue
    mkdirSync(dirname(to), { recursive: true })
    copyFileSync(file, to)
  }
  return found.map((f) => f.path).filter((path) => path.startsWith('..'))
}

/** @returns the page's file */
function write({ source, site, page, edits }: Work, { out }: PageOptions): string {
  mkdirSync(out, { recursive: true })
  const file = join(out, page.file)
  writeWhole(file, writePage(source.bytes, source.parsed, edits).bytes)
  writeWhole(join(out, 'site.json'), JSON.stringify(site, null, 2) + '\n')
  return file
}

/** Atomic, so that a full disk leaves no partial page. */
function writeWhole(file: string, content: Uint8Array | string): void {
  writeFileSync(`${file}.part`, content)
  renameSync(`${file}.part`, file)
}

type TriedByScreen = Record<string, Tried[]>

/**
 * Tries links in the measured pages with edits applied. On one screen, the written page is loaded and tried as well; if results differ,
 * they count, and all screens are tried that way.
 */
async function tryLinks(browser: DrivenBrowser, open: OpenPage, work: Work, wait: number): Promise<TriedByScreen> {
  const { page, site, surveys, edits } = work
  const mayBeBusy = (screen: Screen, tried: Tried) => mayPass(verdictsOf(work, screen, [tried])[0]!)
  const [first] = site.screens
  const known = knownMenusOf(page, surveys)
  const load = async (screens: Screen[]) => {
    const fresh = new OpenPage(browser, mountOf(work.source, stampWritten(work)), screens)
    try {
      return await fresh.tryLinks(null, known, mayBeBusy, wait)
    } finally {
      await fresh.close()
    }
  }
  const [tried, proof] = await Promise.all([open.tryLinks(edits, known, mayBeBusy), load([first!])])
  const [shown, afresh] = [tried[first!.key], proof[first!.key]]
  const isProven = open.isOut || (shown && afresh && isAlike(shown, afresh))
  // Wrong stops are measured and tried again in any case.
  const isLeft = !wait && site.screens.some((screen) => judgedOn(work, screen, tried).some(({ verdicts }) => verdicts.some(stopsElsewhere)))
  return isProven || isLeft ? tried : { ...tried, ...(await load(site.screens)) }
}

/** The written page, with stamps of the source. */
const stampWritten = ({ source, edits }: Work): Uint8Array =>
  writePage(source.bytes, source.parsed, [...edits, ...stampEdits(source.parsed)]).bytes

/** In px. Two loads may round layout differently. */
const SAME = 1

/** True when all links have the same results. */
function isAlike(measured: readonly Tried[], fresh: readonly Tried[]): boolean {
  return (
    measured.length === fresh.length &&
    measured.every((one, n) => {
      const { scroll, mark, coveredBy, below } = fresh[n]!
      return (
        one.href === fresh[n]!.href &&
        Math.abs(one.scroll - scroll) <= SAME &&
        Math.abs((one.below?.scroll ?? 0) - (below?.scroll ?? 0)) <= SAME &&
        one.mark === mark &&
        (one.coveredBy === null) === (coveredBy === null)
      )
    })
  )
}

const verdictsOf = ({ page, asBuilt }: Work, screen: Screen, tried: Tried[]) => judgeTried(page, asBuilt[screen.key] ?? null, tried)

const judgedOn = (work: Work, screen: Screen, tried: TriedByScreen): JudgedScreen[] =>
  tried[screen.key] ? [{ screen, verdicts: verdictsOf(work, screen, tried[screen.key]!) }] : []

const worstOf = (troubles: ReadonlySet<MeasuringTrouble>): MeasuringTrouble | null =>
  (['silent', 'reloads', 'restless'] as const).find((t) => troubles.has(t)) ?? null

/** Reports a page's results. */
function told(
  work: Work,
  file: string,
  judged: JudgedScreen[] | null,
  tried: TriedByScreen | null,
  trouble: MeasuringTrouble | null,
  say: PageOptions['say'],
): BuildReport {
  const { site, page, asBuilt, source, known } = work
  const { undeclared, named } = known
  const input = {
    site,
    page,
    reading: source.reading,
    undeclared,
    named,
    known: new Set<string>(),
    surveys: asBuilt,
    tried: tried ?? {},
    trouble,
  }
  const open = openFindings(input, known.findings)
  const outcome = tried && outcomeOf(input, open)
  if (!page.sections.length) say('no sections found on the page')
  say(`${file}: ${page.sections.length} sections, ${page.menus.flatMap((m) => m.items).length} menu items`)
  const kept = leftAsItIs(page)
  if (kept) say(kept)
  if (judged && outcome) tell(judged, outcome, say)
  // Tried links are reported above.
  for (const { code, severity, line, column, message } of open)
    if (severity === 'error' && code !== 'link-tried') say(`error ${code} ${line}:${column}  ${message}`)
  return reportOf(file, site, page, asBuilt, judged, outcome, open)
}
