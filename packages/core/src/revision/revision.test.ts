import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed, textOf, type El } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { aSite } from '../site/builder.ts'
import { apply, defaultScreens, renameSection, type Menu, type Site, type SitePage } from '../site/index.ts'
import { likeness } from './print.ts'
import { outOfOrder } from './match.ts'
import { reviewRevision, revisePage, type Decisions, type Revision, type Version } from './index.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
function version(text: string): Version {
  const parsed = parsePage(bytes(text))
  return { parsed, reading: readParsed(parsed, text.length, 'index.html') }
}
const setUp = (v: Version): SitePage => ({
  key: 'p1',
  file: 'index.html',
  source: 'a',
  title: '',
  ...proposeSetUp(v.reading, [], defaultRule),
})

/** A source of numbers from 0 to 1 that is the same in every run. */
function random(seed: number): () => number {
  let a = seed
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

interface Block {
  text: string
  /** Number in the earlier version; -1 for one that is new. */
  truth: number
}

const MARK = 'data-truth'

/** The page as what stands before, between and behind its parts; null where they do not stand side by side. */
function blocksOf(source: string): { before: string; blocks: Block[]; behind: string } | null {
  const { parsed, reading } = version(source)
  const els = reading.candidates.filter((c) => c.offered).map((c) => parsed.byAt.get(c.at)!)
  const parent = els[0]?.parent
  const beside = els.filter((e) => e.parent === parent)
  if (beside.length < 5) return null
  const isFlat = beside[0]!.level > 0
  const end = (e: El, i: number) => (isFlat ? (beside[i + 1]?.at ?? (parent!.closeAt > 0 ? parent!.closeAt : e.end)) : e.end)
  const text = parsed.decoded.text
  const blocks = beside.map((e, i) => ({
    text: text.slice(e.at, e.tagEnd - 1) + ` ${MARK}="${i}"` + text.slice(e.tagEnd - 1, end(e, i)),
    truth: i,
  }))
  return { before: text.slice(0, beside[0]!.at), blocks, behind: text.slice(end(beside.at(-1)!, beside.length - 1)) }
}

/** A third of the headings lose half their words, half of the IDs go, wrappers come, blocks change places, two go and three come. */
function changed(source: string, seed: number): { before: string; after: string; kept: Set<number> } | null {
  const page = blocksOf(source)
  if (!page) return null
  const next = random(seed)
  const pick = (n: number) => Math.floor(next() * n)
  const blocks = page.blocks.map((b) => ({ ...b }))
  for (let i = 0; i < 2; i++) blocks.splice(pick(blocks.length), 1)
  const kept = new Set(blocks.map((b) => b.truth))
  for (const b of blocks) {
    if (next() < 1 / 3)
      b.text = b.text.replace(/(<h[1-6][^>]*>)([^<]+)/, (_, tag: string, words: string) => {
        const all = words.trim().split(/\s+/)
        return (
          tag + (all.length > 1 ? all.filter((__, i) => i % 2 === 0).join(' ') : [...words].slice(0, Math.ceil(words.length / 2)).join(''))
        )
      })
    if (next() < 1 / 2) b.text = b.text.replace(/ id="[^"]*"/, '')
    if (next() < 1 / 3) b.text = `<div class="wrap">${b.text}</div>`
  }
  for (let i = 0; i < 2; i++) {
    const [moved] = blocks.splice(pick(blocks.length), 1)
    blocks.splice(pick(blocks.length + 1), 0, moved!)
  }
  const tag = /^<([a-z0-9]+)/i.exec(page.blocks[1]!.text)![1]!
  for (const [i, words] of [
    'Winter visits begin in December, wrapped up and with torches',
    'Gift cards are printed here and posted on Mondays',
    'Volunteers are asked for two evenings a month',
  ].entries())
    blocks.splice(pick(blocks.length + 1), 0, {
      text: /^h\d$/i.test(tag)
        ? `<${tag}>News ${i}</${tag}><p>${words}.</p>`
        : `<${tag}><h2>${words.split(' ').slice(0, 2).join(' ')}</h2><p>${words}.</p></${tag}>`,
      truth: -1,
    })
  return {
    before: page.before + page.blocks.map((b) => b.text).join('\n') + page.behind,
    after: page.before + blocks.map((b) => b.text).join('\n') + page.behind,
    kept,
  }
}

/** The truth that stands on the element or in it, if it is one alone. */
function truthOf(v: Version, at: number): number | null {
  const el = v.parsed.byAt.get(at)!
  const inside = v.parsed.tree.all.slice(el.order, el.lastOrder + 1).filter((e) => e.attrs.has(MARK))
  // Also the heading that a flat part's mark stands on.
  return inside.length === 1 ? Number(inside[0]!.attrs.get(MARK)) : null
}

const folder = join(process.cwd(), 'packages/core/fixtures/outline')
const sources = [join(process.cwd(), 'demo/ostrey/index.html'), ...readdirSync(folder).map((f) => join(folder, f))]
  .map((f) => readFileSync(f, 'utf8'))
  .filter((s) => blocksOf(s))

it('finds nine of ten sections in heavily changed pages, and marks uncertain ones', () => {
  let all = 0
  let plain = 0
  const wrong: string[] = []
  expect(sources.length).toBeGreaterThan(8)
  sources.forEach((source, n) => {
    for (let seed = 1; seed <= 12; seed++) {
      const page = changed(source, seed * 100 + n)!
      const [before, after] = [version(page.before), version(page.after)]
      const sections = setUp(before)
      for (const row of reviewRevision(sections, before, after).rows) {
        const section = sections.sections.find((s) => s.key === row.section)!
        const truth = truthOf(before, section.at)
        // A part around several others, or one beside them, is not in the game.
        if (truth === null) continue
        const got = row.to ? truthOf(after, row.to.at) : null
        if (page.kept.has(truth)) {
          all++
          if (got === truth && !row.doubtful) plain++
        }
        if (row.to && got !== truth && !row.doubtful) wrong.push(`${n}/${seed}: “${section.title}” as “${row.to.title}”`)
      }
    }
  })
  expect(wrong).toEqual([])
  expect(all).toBeGreaterThan(400)
  expect(plain / all).toBeGreaterThanOrEqual(0.9)
})

it('finds a thousand sections among nine thousand parts, reversed', () => {
  const part = (i: number) =>
    `<section id="s${i}"><h2>Chapter ${i}</h2>${[1, 2, 3, 4].map((j) => `<h3 id="s${i}-${j}">Part ${i}.${j}</h3><p id="p${i}-${j}">words of w${i}x${j} and more</p>`).join('')}</section>`
  const numbers = Array.from({ length: 1000 }, (_, i) => i)
  const [before, after] = [
    version(numbers.map(part).join('')),
    version(numbers.map((i) => part(999 - i).replace(/ id="s\d+">/, '>')).join('')),
  ]
  const page = setUp(before)
  const { rows } = reviewRevision(page, before, after)
  const right = rows.filter((r, i) => r.to?.title === page.sections[i]!.title && !r.doubtful)
  expect(right.length).toBeGreaterThanOrEqual(900)
  expect(rows.filter((r, i) => r.to && r.to.title !== page.sections[i]!.title && !r.doubtful)).toEqual([])
})

const decide = (revision: Revision): Decisions => ({
  sections: Object.fromEntries(revision.rows.map((r) => [r.section, r.to?.at ?? null])),
  added: revision.added.map((f) => f.at),
})
const first =
  '<nav><a href="#work">Work</a><a href="#team">Team</a><a href="#mail">Mail</a></nav><section id=work><h2>Our work in wood</h2><p>Tables, chairs and the odd boat.</p></section><section id=team><h2>The team</h2><p>Ada planes, Bo saws, Cy sands.</p></section><section id=mail><h2>Write to us</h2><p>By the post of Monday.</p></section>'
const second =
  '<nav><a href="#mail">Mail</a><a href="#work">Projects</a><a href="#fair">Fair</a></nav><section id=mail><h2>Write to us</h2><p>By the post of Monday.</p></section><section id=projects><h2>Our work in wood</h2><p>Tables, chairs and two boats.</p></section><section id=fair><h2>At the fair</h2><p>Stand nine, behind the cider.</p></section>'

function revised(change: (page: SitePage) => SitePage = (p) => p, text = second) {
  const [before, after] = [version(first), version(text)]
  const page = change(setUp(before))
  const revision = reviewRevision(page, before, after)
  const site: Site = { format: 'way-bell-site', version: 4, name: '', rule: defaultRule, screens: defaultScreens, pages: [page] }
  const command = revisePage(page, before, after, decide(revision), { source: 'b', title: 'New' }, defaultRule)
  return { page, revision, site, command, next: apply(site, command).site.pages[0]!, after }
}

describe('taking over a new version', () => {
  it('says what became of each section', () => {
    const { revision } = revised()
    expect(revision.rows.map((r) => [r.section.length > 0, r.state, r.doubtful, r.to?.title])).toEqual([
      [true, 'moved', false, 'Our work in wood'],
      [true, 'lost', false, undefined],
      [true, 'matched', false, 'Write to us'],
    ])
    expect(revision.added.map((f) => f.title)).toEqual(['At the fair'])
  })

  it('keeps the set-up, follows the page’s own IDs, and is undone in one step', () => {
    const { page, next, site, command } = revised((p) => ({
      ...p,
      sections: p.sections.map((s, i) => (i ? s : { ...s, title: 'Joinery' })),
      travel: { smooth: false, breathing: 7 },
    }))
    expect(next.sections.map((s) => [s.title, s.id, s.former])).toEqual([
      ['Write to us', 'mail', []],
      ['Joinery', 'projects', ['work']],
      ['At the fair', 'fair', []],
    ])
    expect([next.source, next.title, next.travel.breathing]).toEqual(['b', 'New', 7])
    expect(
      next.menus[0]!.items.map((i) => [
        i.label,
        i.target.kind === 'section' ? next.sections.find((s) => s.key === (i.target as { section: string }).section)!.id : i.target.kind,
      ]),
    ).toEqual([
      ['Mail', 'mail'],
      ['Projects', 'projects'],
      ['Fair', 'fair'],
    ])
    const back = apply(apply(site, command).site, apply(site, command).inverse).site
    expect(back.pages[0]).toEqual(page)
  })

  it('keeps the designer’s ID, with its former ones', () => {
    const { next } = revised((p) => {
      const site: Site = { format: 'way-bell-site', version: 4, name: '', rule: defaultRule, screens: defaultScreens, pages: [p] }
      return apply(site, renameSection('p1', p.sections[0]!, 'joinery', new Set())).site.pages[0]!
    })
    expect(next.sections[1]).toMatchObject({ id: 'joinery', sourceId: 'projects', former: ['work'] })
  })

  it('is certain about an unchanged page', () => {
    const { revision, next, page } = revised((p) => p, first)
    expect(revision.rows.map((r) => [r.state, r.doubtful])).toEqual([
      ['matched', false],
      ['matched', false],
      ['matched', false],
    ])
    expect({ ...next, source: page.source, title: page.title }).toEqual(page)
  })

  it('is uncertain about an ID that is on something else now', () => {
    const { revision } = revised(
      (p) => p,
      first.replace(
        '<h2>The team</h2><p>Ada planes, Bo saws, Cy sands.</p>',
        '<h2>Opening hours</h2><p>Nine until five on working days.</p>',
      ),
    )
    expect(revision.rows[1]).toMatchObject({ doubtful: true, to: { id: 'team' } })
  })

  it('moves a point with its element', () => {
    const { next, after } = revised((p) => ({
      ...p,
      sections: [
        p.sections[0]!,
        p.sections[1]!,
        { ...p.sections[2]!, key: 'pt', id: 'bench', sourceId: null, point: { shift: 5 } },
        p.sections[2]!,
      ],
    }))
    const point = next.sections.find((s) => s.point)!
    expect(textOf(after.parsed.byAt.get(point.at)!, 11)).toBe('Write to us')
  })
})

describe('menus and header in a new version', () => {
  const a = (id: string) => `<a href="#${id}">${id}</a>`
  const parts = (...ids: string[]) =>
    ids.map((id) => `<section id="${id}"><h2>${id}</h2><p>${id} and more of ${id}.</p></section>`).join('')
  const take = (from: string, to: string, change: (page: SitePage) => SitePage = (p) => p) => {
    const [before, after] = [version(from), version(to)]
    const page = change(setUp(before))
    const command = revisePage(page, before, after, decide(reviewRevision(page, before, after)), { source: 'b', title: '' }, defaultRule)
    return { page, after, next: apply(aSite(page), command).site.pages[0]! }
  }

  it('finds two menus with the same labels, each in its element', () => {
    const menus = (...ids: string[]) => `<nav class="wide">${ids.map(a).join(' ')}</nav><nav class="narrow">${ids.map(a).join(' ')}</nav>`
    const apart = (p: SitePage): SitePage => {
      const [menu] = p.menus
      const form = menu!.form as { kind: 'found'; elements: number[] }
      const one = (n: number) => ({
        ...menu!,
        key: `m${n + 1}`,
        form: { kind: 'found' as const, elements: [form.elements[n]!] },
        items: menu!.items.map((i) => ({ ...i, links: [i.links[n]!] })),
      })
      return { ...p, menus: [one(0), one(1)] }
    }
    const { next, after } = take(
      menus('work', 'team') + parts('work', 'team'),
      '<p>News.</p>' + menus('work', 'team', 'mail') + parts('work', 'team', 'mail'),
      apart,
    )
    expect(next.menus.map((m) => m.form)).toEqual(after.reading.menus.map((m) => ({ kind: 'found', elements: [m.at] })))
    expect(next.menus.map((m) => m.items.map((i) => i.label))).toEqual([
      ['work', 'team', 'mail'],
      ['work', 'team', 'mail'],
    ])
    const together = take(menus('work', 'team') + parts('work', 'team'), menus('team', 'work') + parts('work', 'team'))
    expect(together.next.menus.map((m) => m.items.map((i) => [i.label, i.links.length]))).toEqual([
      [
        ['team', 2],
        ['work', 2],
      ],
    ])
  })

  it('gives every item its own key, however many versions come', () => {
    const text = (...ids: string[]) => parts(...ids)
    const first = take(text('one', 'two', 'three'), text('one', 'two', 'three', 'four'))
    const dropped = {
      ...first.next,
      menus: first.next.menus.map((m) => ({ ...m, items: m.items.filter((i) => i.label !== 'one') })),
      sections: first.next.sections.filter((s) => s.id !== 'one'),
    }
    const [before, after] = [version(text('one', 'two', 'three', 'four')), version(text('two', 'three', 'four', 'five'))]
    const command = revisePage(
      dropped,
      before,
      after,
      decide(reviewRevision(dropped, before, after)),
      { source: 'c', title: '' },
      defaultRule,
    )
    const { menus } = apply(aSite(dropped), command).site.pages[0]!
    const keys = menus[0]!.items.map((i) => i.key)
    expect(menus[0]!.items.map((i) => i.label)).toContain('five')
    expect(new Set(keys).size).toBe(keys.length)
  })

  it('adds items for new sections to growing made menus, and adjusts where they start and end', () => {
    const { next } = take(parts('work', 'team', 'shop'), parts('team', 'shop', 'news'), (p) => {
      const [work, , shop] = p.sections
      const form = { kind: 'corner', side: 'right', edge: 0 } as const
      const pinned: Menu = { key: 'm2', name: 'Up', form, grows: false, shown: { from: work!.key, until: shop!.key }, items: [] }
      return { ...p, menus: [...p.menus, pinned] }
    })
    const idOf = (key: string | undefined) => next.sections.find((s) => s.key === key)?.id
    expect(next.menus.map((m) => m.items.map((i) => idOf((i.target as { section?: string }).section)))).toEqual([
      ['team', 'shop', 'news'],
      [],
    ])
    expect([idOf(next.menus[1]!.shown!.from), idOf(next.menus[1]!.shown!.until)]).toEqual(['team', 'shop'])
  })

  it('keeps the chosen header', () => {
    const page = (notice: string) =>
      `<div class="notice">${notice}</div><header class="bar">${a('work')} ${a('team')}</header>${parts('work', 'team')}`
    const at = (v: { parsed: Version['parsed'] }, name: string) => v.parsed.tree.all.find((el) => el.attrs.get('class') === name)!.at
    const chosen = (p: SitePage): SitePage => ({ ...p, header: { at: at(version(page('Old')), 'notice'), keep: 'sticky', backing: null } })
    const { next, after } = take(page('Old'), '<!-- new -->' + page('Quite new'), chosen)
    expect(next.header).toEqual({ at: at(after, 'notice'), keep: 'sticky', backing: null })
  })
})

it('finds links with chosen targets, each of several alike', () => {
  const text = (lead: string, last: string) =>
    `<p>${lead}<a href="#x">More</a> <a href="#x">More</a> <a href="#y">Why</a></p><section id="work"><h2>Work</h2><p>Words of it.</p></section>${last}`
  const before = version(text('', '<section id="team"><h2>Team</h2><p>Those who do it.</p></section>'))
  const page = setUp(before)
  const [, second, why] = before.reading.links.map((l) => l.at)
  const to = (n: number) => ({ kind: 'section', section: page.sections[n]!.key }) as const
  const given: SitePage = {
    ...page,
    links: [
      { at: second!, target: to(0) },
      { at: why!, target: to(1) },
    ],
  }
  const next = (as: string) => {
    const after = version(as)
    const decisions = { sections: {}, added: [] }
    const { rows } = reviewRevision(given, before, after)
    for (const { section, to: found } of rows) Object.assign(decisions.sections, { [section]: found?.at ?? null })
    const command = revisePage(given, before, after, decisions, { source: 'b', title: '' }, defaultRule)
    const { links } = apply(aSite(given), command).site.pages[0]!
    return links?.map((l) => [after.reading.links.findIndex((r) => r.at === l.at), l.target])
  }
  const team = '<section id="team"><h2>Team</h2><p>Those who do it.</p></section>'
  expect(next(text('Words before it, and more. ', team))).toEqual([
    [1, to(0)],
    [2, to(1)],
  ])
  // One that is not there any more, and one whose section is lost.
  expect(next(text('', team).replace('<a href="#x">More</a> ', ''))).toEqual([[1, to(1)]])
  expect(next(text('', ''))).toEqual([[1, to(0)]])
})

it('measures similarity by words and counts', () => {
  const of = (text: string) => new Map(text.split(' ').map((w) => [w, text.split(' ').filter((x) => x === w).length]))
  expect(likeness(of('a b c'), of('a b c'))).toBe(1)
  expect(likeness(of('a b'), of('c d'))).toBe(0)
  expect(likeness(of('a a b'), of('a c'))).toBeCloseTo(0.4)
})
it.each([
  [[1, 2, 3], []],
  [[3, 1, 2], [0]],
  [[1, 5, 2, 3], [1]],
  [[], []],
])('of the places %j those at %j are out of order', (places, out) => expect([...outOfOrder(places)]).toEqual(out))
