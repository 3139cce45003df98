import fc from 'fast-check'
import { anInput } from './builder.ts'
import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed, undoSplices } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { type Item, type Menu, type SitePage } from '../site/index.ts'
import { pageEdits, writePage } from './index.ts'

const utf8 = (text: string) => new TextEncoder().encode(text)
const read = (source: string) => {
  const parsed = parsePage(utf8(source))
  const reading = readParsed(parsed, source.length, 'index.html')
  const page: SitePage = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  return { parsed, reading, page }
}
/** The page with the items of its menu as `change` leaves them. */
function written(source: string, change: (items: Item[]) => Item[]): { text: string; isUndone: boolean } {
  const { parsed, reading, page } = read(source)
  const menus = page.menus.map((m): Menu => ({ ...m, items: change(m.items) }))
  const edits = pageEdits(anInput({ ...page, menus }, reading))
  const { bytes, splices } = writePage(utf8(source), parsed, edits)
  return { text: new TextDecoder().decode(bytes), isUndone: new TextDecoder().decode(undoSplices(bytes, splices)) === source }
}
const labels = (text: string) => read(text).page.menus[0]!.items.map((i) => i.label)
const nav = (text: string) => /<nav[^>]*>([\s\S]*)<\/nav>/.exec(text)![1]!.replace(/\s+/g, ' ').trim()
const sections = (names: string) => [...names].map((n) => `<section id="${n.toLowerCase()}"><h2>${n}</h2><p>Words.</p></section>`).join('')
const page = (menu: string, names: string) => `<!doctype html><header><nav>${menu}</nav></header><main>${sections(names)}</main>`
const a = (n: string) => `<a href="#${n.toLowerCase()}">${n}</a>`
const to = (order: string) => (items: Item[]) => [...order].map((n) => items.find((i) => i.label === n)!)

const nested = page(
  `<ul> <li>${a('A')}</li> <li>More <ul> <li class=b>${a('B')}</li> <li>${a('C')}</li> </ul></li> <li>${a('D')}</li> </ul>`,
  'ABCD',
)
const withLink = page(
  `<ul><li>${a('A')}</li><li>${a('M')}<ul><li>${a('B')}</li><li>${a('C')}</li></ul></li><li>${a('D')}</li></ul>`,
  'ABCDM',
)

it('reorders entries of nested lists, each within its list', () =>
  expect(nav(written(nested, to('DCBA')).text)).toBe(
    `<ul> <li>${a('D')}</li> <li>More <ul> <li>${a('C')}</li> <li class=b>${a('B')}</li> </ul></li> <li>${a('A')}</li> </ul>`,
  ))

it('moves nested items with their item', () =>
  expect(nav(written(withLink, to('ADMBC')).text)).toBe(
    `<ul><li>${a('A')}</li><li>${a('D')}</li><li>${a('M')}<ul><li>${a('B')}</li><li>${a('C')}</li></ul></li></ul>`,
  ))

it('swaps links if the order mixes lists', () =>
  expect(nav(written(withLink, to('BAMDC')).text)).toBe(
    `<ul><li>${a('B')}</li><li>${a('A')}<ul><li>${a('M')}</li><li>${a('D')}</li></ul></li><li>${a('C')}</li></ul>`,
  ))

it('keeps other links in a menu, and repeats nothing', () => {
  const source = page(`${a('A')} <a href="https://x.example/">Blog</a> ${a('B')} ${a('C')}`, 'ABC')
  for (const order of ['B', 'C', 'BC', 'CA', '', 'CBA']) {
    const { text } = written(source, (items) => [...to(order)(items), items.find((i) => i.label === 'Blog')!])
    expect([order, text.match(/Blog/g)?.length]).toEqual([order, 1])
    expect(written(source, to(order)).text).not.toContain('Blog')
  }
  const added: Item = { key: 'n', label: 'New', target: { kind: 'top' }, links: [] }
  const { text } = written(source, (items) => [...items, added, { ...added, key: 'o', label: 'Other' }])
  expect(labels(text)).toEqual(['A', 'Blog', 'B', 'C', 'New', 'Other'])
})

it('writes new items if none of the page’s is kept', () => {
  const added: Item = { key: 'n', label: 'New', target: { kind: 'top' }, links: [] }
  for (const source of [page(`${a('A')} ${a('B')}`, 'AB'), nested]) {
    const { text, isUndone } = written(source, () => [added, { ...added, key: 'o', label: 'Other' }])
    const texts = nav(text)
      .replace(/<[^>]*>/g, ' ')
      .trim()
      .split(/\s+/)
    expect([texts.slice(0, 2), isUndone]).toEqual([['New', 'Other'], true])
  }
})

it('writes a menu into both its elements, each with its own markup', () => {
  const source = `<!doctype html><header><nav class="wide">${a('A')} ${a('B')}</nav><nav class="narrow"><ul><li>${a('A')}</li><li>${a('B')}</li></ul></nav></header><main>${sections('AB')}</main>`
  expect(read(source).page.menus.map((m) => m.items.map((i) => i.links.length))).toEqual([[2, 2]])
  const { text, isUndone } = written(source, (items) => [{ ...items[1]!, label: 'Bee' }, items[0]!])
  expect(text).toContain(`<nav class="wide"><a href="#b">Bee</a> ${a('A')}</nav>`.replace('<nav', '<nav data-wb-menu'))
  expect(text).toContain(`<ul><li><a href="#b">Bee</a></li><li>${a('A')}</li></ul>`)
  expect(isUndone).toBe(true)
})

/** Menus of lists in lists, with bare text, dividers, unclosed entries and links in deeper elements. */
const tree: fc.Memo<string[]> = fc.memo((depth) =>
  fc.array(depth > 1 ? fc.oneof(leaf, branch(depth - 1)) : leaf, { minLength: 1, maxLength: 4 }),
)
const leaf = fc.constantFrom(
  '<li>@</li>',
  '<li class="x"><span>@</span></li>',
  '<li>@',
  '<li><b>@</b> text</li>',
  '<!-- between --><li id="l">@</li>',
)
const branch = (depth: number) =>
  fc
    .tuple(fc.constantFrom('<li>Group', '<li>@', '<li><a href="https://x.example/">Away</a>'), tree(depth))
    .map(([head, inner]) => `${head}<ul>${inner.join('\n')}</ul></li>`)
const flat = fc
  .tuple(fc.constantFrom(' | ', '\n', '<i>/</i>', ''), fc.integer({ min: 2, max: 5 }))
  .map(([glue, n]) => Array.from({ length: n }, () => '@').join(glue))
const menus = fc.oneof(
  tree(3).map((entries) => `<ul>${entries.join(' ')}</ul>`),
  flat,
  tree(2).map((e) => `<div><ul>${e.join('')}</ul></div><div><ul>${e.join('')}</ul></div>`),
)

it('writes any order of any menu, reads it back, and undoes it to the byte', () =>
  fc.assert(
    fc.property(menus, fc.infiniteStream(fc.nat()), (markup, random) => {
      const names = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'].slice(0, markup.split('@').length - 1)
      fc.pre(names.length >= 2 && names.length < 40)
      let n = 0
      const source = page(
        markup.replace(/@/g, () => `<a href="#s${n}">${names[n++]}</a>`),
        '',
      ).replace(
        '<main></main>',
        `<main>${names.map((name, i) => `<section id="s${i}"><h2>${name}</h2><p>Words.</p></section>`).join('')}</main>`,
      )
      const { page: read0 } = read(source)
      fc.pre(read0.menus[0]!.form.kind === 'found')
      const shuffle = (items: Item[]) =>
        items
          .map((item) => ({ item, by: random.next().value as number }))
          .sort((x, y) => x.by - y.by)
          .map(({ item }) => item)
      let order: string[] = []
      const { text, isUndone } = written(source, (items) => {
        const next = shuffle(items)
        order = next.map((i) => i.label)
        return next
      })
      // Words that stand in an entry themselves go where that goes, which is told where it is not where the item stands.
      const apart = (all: string[]) => all.filter((label) => label !== 'Group')
      expect(apart(labels(text))).toEqual(apart(order))
      expect(labels(text)).toHaveLength(order.length)
      expect(isUndone).toBe(true)
      // What else stands in the menu is still there, once.
      const marks = [/Group/g, / text/g, /Away/g, /<!-- between -->/g, /<i>\/<\/i>/g, / \| /g, /<ul>/g, /<li/g, /<\/li>/g, /<b>/g]
      const others = (t: string) => marks.map((mark) => nav(t).match(mark)?.length ?? 0)
      expect(others(text)).toEqual(others(source))
    }),
    { numRuns: 300 },
  ))
