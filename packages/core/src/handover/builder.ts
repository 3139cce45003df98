/** Handovers for tests: of a page alone, without surveys. */
import { readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed, type PageReading } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { aSite, twoScreens } from '../site/builder.ts'
import { apply, renameSection, type Command, type HeaderChoice, type SitePage, isFound } from '../site/index.ts'
import type { HandoverInput } from './input.ts'
import { pageEdits, writePage } from './index.ts'

export const anInput = (page: SitePage, reading: PageReading, over: Partial<HandoverInput> = {}): HandoverInput => ({
  page,
  pages: [page],
  reading,
  screens: twoScreens,
  surveys: {},
  named: [],
  runtime: () => '/* data-wb --wb-header */',
  ...over,
})

const own = join(process.cwd(), 'e2e/pages')

/** Pages of the demo, the tests and the field, each as `[name, file]`. */
export const everyPage: [name: string, file: string][] = [
  join(process.cwd(), 'demo/ostrey/index.html'),
  ...readdirSync(own).flatMap((name) => (name.endsWith('.html') ? join(own, name) : [])),
  ...readdirSync(join(own, 'field'), { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? join(own, 'field', e.name, 'index.html') : [],
  ),
].map((file) => [file.slice(process.cwd().length + 1), file])

/** A page after the one press, and its handover. */
export function broughtIn(bytes: Uint8Array, file: string) {
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const page: SitePage = {
    key: 'p1',
    file: 'index.html',
    source: '',
    title: '',
    ...proposeSetUp(reading, [], defaultRule, new Set(readdirSync(dirname(file)))),
  }
  const handOver = (as: SitePage) => writePage(bytes, parsed, pageEdits(anInput(as, reading)))
  return { page, reading, handOver }
}

/**
 * Renames every section that came with an ID, makes a point before the first, gives found menus a look, and makes the last heading a
 * link.
 */
const letGo = (header: HeaderChoice): Command => ({
  type: 'header/choose',
  page: 'p1',
  header: {
    ...header,
    off: ['phone'],
    onScroll: { after: 90, over: true, clear: true, away: true, small: 12 },
    under: [{ screen: 'laptop', head: 20, frame: 0 }],
  },
})

export function changed(page: SitePage): SitePage {
  let site = aSite(page)
  for (const { key, sourceId } of page.sections.filter((s) => s.sourceId !== null)) {
    const section = site.pages[0]!.sections.find((s) => s.key === key)!
    site = apply(site, renameSection('p1', section, `${section.id}-2`, new Set([sourceId!]))).site
  }
  for (const { key } of page.menus.filter(isFound)) {
    const look = { states: { current: { weight: 'bold', backing: '#112233', opacity: 40 }, hover: { ink: '#aabbcc' } } } as const
    site = apply(site, { type: 'menu/look', page: 'p1', menu: key, look }).site
    const by = page.sections.at(-1)?.at
    if (by !== undefined) site = apply(site, { type: 'menu/shut-by', page: 'p1', menu: key, by }).site
  }
  const at = { page: 'p1' }
  const timed = { easing: 'ease-out', ms: 300, most: 900 } as const
  const motions: Command[] = [
    { type: 'travel/smooth', ...at, smooth: true, timed },
    ...page.sections
      .slice(-1)
      .flatMap(({ key: section }): Command[] => [
        { type: 'section/adjust', ...at, section, adjust: { by: 12, off: ['phone'] } },
        ...page.sections.slice(1, 2).map((s): Command => ({ type: 'section/adjust', ...at, section: s.key, adjust: { by: 'fills' } })),
        { type: 'travel/end-space', ...at, endSpace: { section, as: 'height', on: [{ screen: 'phone', fits: 700, base: 80 }] } },
      ]),
    ...(page.header ? [letGo(page.header)] : []),
    { type: 'travel/address', ...at, address: 'replace', follows: true },
    { type: 'travel/presses', ...at, takes: true },
    { type: 'travel/skip', ...at, label: 'Skip <it> & go on' },
    {
      type: 'travel/breathing',
      ...at,
      breathing: page.travel.breathing,
      breathes: [{ screen: 'phone', px: 10 }],
      ...(page.travel.pageOffsets && { pageOffsets: true }),
    },
    ...page.menus.flatMap(({ key: menu, items }): Command[] => [
      { type: 'menu/motion', ...at, menu, motion: 'smooth' },
      ...items.slice(0, 1).map((item): Command => ({ type: 'item/motion', ...at, menu, item: item.key, motion: 'jump' })),
    ]),
  ]
  for (const command of motions) site = apply(site, command).site
  const heading = page.sections.at(-1)?.heading ?? null
  if (heading !== null) {
    const made = { of: 'element', label: 'Heading' } as const
    site = apply(site, { type: 'link/target', page: 'p1', at: heading, target: { kind: 'top' }, made }).site
  }
  const [first] = page.sections
  if (!first) return site.pages[0]!
  const point = {
    ...first,
    key: 'pt',
    id: 'a-point',
    sourceId: null,
    former: [],
    heading: null,
    toTop: false,
    point: { shift: 30 },
    title: 'a-point',
  }
  return apply(site, { type: 'section/add', page: 'p1', section: point }).site.pages[0]!
}
