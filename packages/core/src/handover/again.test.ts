/** Handed over and brought in again, on every page there is here: nothing is to be set up, and the next handover is the same to the byte. */
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { aSite } from '../site/builder.ts'
import { apply, renameSection, type SitePage } from '../site/index.ts'
import { anInput } from './builder.ts'
import { pageEdits, writePage } from './index.ts'

const own = join(process.cwd(), 'e2e/pages')
const files = [
  join(process.cwd(), 'demo/ostrey/index.html'),
  ...readdirSync(own).flatMap((name) => (name.endsWith('.html') ? join(own, name) : [])),
  ...readdirSync(join(own, 'field'), { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? join(own, 'field', e.name, 'index.html') : [],
  ),
]

function broughtIn(bytes: Uint8Array, file: string) {
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
  return { page, handOver }
}

/** Every section that the page came with an ID for gets another, and the first one a point before it. */
function changed(page: SitePage): SitePage {
  let site = aSite(page)
  for (const { key, own } of page.sections.filter((s) => s.own !== null)) {
    const section = site.pages[0]!.sections.find((s) => s.key === key)!
    site = apply(site, renameSection('p1', section, `${section.id}-2`, new Set([own!]))).site
  }
  const [first] = page.sections
  if (!first) return site.pages[0]!
  const point = {
    ...first,
    key: 'pt',
    id: 'a-point',
    own: null,
    former: [],
    heading: null,
    toTop: false,
    point: { shift: 30 },
    title: 'a-point',
  }
  return apply(site, { type: 'section/add', page: 'p1', section: point }).site.pages[0]!
}

it.each(files.map((file) => [file.slice(process.cwd().length + 1), file]))('%s', (_, file) => {
  const source = new Uint8Array(readFileSync(file))
  const { page, handOver } = broughtIn(source, file)
  for (const as of [page, changed(page)]) {
    const once = handOver(as)
    const again = broughtIn(once.bytes, file)
    const twice = again.handOver(again.page)
    expect(new TextDecoder('latin1').decode(twice.bytes)).toBe(new TextDecoder('latin1').decode(once.bytes))
    const ids = (p: SitePage) => p.sections.map((s) => [s.id, s.former, s.point, s.toTop])
    expect(ids(again.page)).toEqual(ids(as))
  }
})
