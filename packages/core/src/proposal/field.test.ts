/** The pages of `e2e/pages/field`, read as they are brought in: what the press makes of them by their markup alone. */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { readPage, type PageReading } from '../page/index.ts'
import { isMade, sectionOf, type Item, type Section, type SetUp } from '../site/index.ts'
import { itemDepths } from '../menus/index.ts'
import { proposeSetUp } from './index.ts'

type MarkedItem = [label: string, target: string]
interface Marks {
  sections: string[]
  menus: MarkedItem[][]
  made?: boolean
  works?: boolean
  told?: string
  /** Only a browser sees what it has. */
  browser?: boolean
}

const folder = join(process.cwd(), 'e2e/pages/field')
const marks = JSON.parse(readFileSync(join(folder, 'marks.json'), 'utf8')) as Record<string, Marks>
const names = Object.keys(marks).filter((name) => !marks[name]!.browser && existsSync(join(folder, name, 'index.html')))

const press = (name: string): { reading: PageReading; setUp: SetUp } => {
  const reading = readPage(new Uint8Array(readFileSync(join(folder, name, 'index.html'))))
  const files = new Set(readdirSync(join(folder, name)))
  return { reading, setUp: proposeSetUp(reading, [], defaultRule, files) }
}

const plain = (mark: string) => mark.replace(/^\?/, '')
const isMarkOf = (mark: string, s: Section) => plain(mark) === `#${s.sourceId}` || plain(mark) === s.title

const told = (item: Item, { sections }: SetUp, reading: PageReading, wanted: string): string => {
  const key = sectionOf(item.target)
  const section = key === null ? undefined : sections.find((s) => s.key === key)
  if (section) return isMarkOf(wanted, section) ? wanted : `#${section.id}`
  if (item.target.kind === 'top') return 'top'
  const link = reading.links.find((l) => l.at === item.links[0])
  if (!link || link.status === 'button') return 'as-is'
  return ['outside', 'other-page'].includes(link.status) ? 'as-is' : link.label && wanted === 'group' ? 'group' : 'none'
}

describe('a page not written for these rules', () => {
  it.each(names)('%s has the marked sections', (name) => {
    const { sections } = press(name).setUp
    const { sections: wanted, menus } = marks[name]!
    expect({
      missing: wanted.filter((m) => !m.startsWith('?') && !sections.some((s) => isMarkOf(m, s))),
      extra: sections.filter((s) => !wanted.some((m) => isMarkOf(m, s))).map((s) => s.title),
    }).toEqual({ missing: [], extra: [] })
    expect(menus).toBeDefined()
  })

  it.each(names)('%s keeps its menus, complete and in order', (name) => {
    const { reading, setUp } = press(name)
    const { menus, made = menus.length === 0 } = marks[name]!
    expect(setUp.menus.some(isMade)).toBe(made)
    const found = setUp.menus.filter((m) => !isMade(m))
    const read = found.map((menu, m) => {
      const depths = itemDepths(menu, reading)
      const wanted = (menus[m] ?? []).filter(([label]) => !label.startsWith('?') || menu.items.some((i) => i.label === plain(label)))
      return menu.items.map((item, n) => ['>'.repeat(depths[n]!) + item.label, told(item, setUp, reading, wanted[n]?.[1] ?? '')])
    })
    const meant = menus.map((menu, m) =>
      menu
        .filter(([label]) => !label.startsWith('?') || found[m]?.items.some((i) => i.label === plain(label)))
        .map(([label, target]) => [plain(label), target]),
    )
    expect(read).toEqual(meant)
  })
})
