import { madeMenuNamed } from '../contract/index.ts'
import { readPage } from '../page/index.ts'
import { aMenu, anItem, aPage, aSection, aSite } from '../site/builder.ts'
import { apply, type Item, type MadeMenuForm, type SitePage } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { aTried } from '../walk/builder.ts'
import type { Tried } from '../walk/index.ts'
import { openFindings } from './index.ts'

const reading = readPage(new TextEncoder().encode('<section id="id-1"><h2>One</h2></section><section id="id-2"><h2>Two</h2></section>'))
const surveys = {
  laptop: aSurvey({
    parts: [1, 2].map((n) => aPart({ at: n * 10, top: n * 500, movedTop: n * 500, bottom: n * 500 + 500 })),
    pageHeight: 3000,
    maxScroll: 2200,
  }),
}

/** What is found of some kinds in a page with a menu that was made. */
const found = (page: SitePage, codes: string[], tried: Record<string, Tried[]>, measured: Record<string, Survey> = surveys) =>
  openFindings(
    {
      site: aSite(page),
      page,
      reading,
      undeclared: new Set(),
      known: new Set(),
      named: { styles: [], scripts: [] },
      surveys: measured,
      tried,
    },
    [],
  ).filter((f) => codes.includes(f.code))

/** What is told where “Item 2” arrives under something. */
function told(form: MadeMenuForm, over: Partial<Tried>) {
  const page = aPage({
    sections: [aSection(1), aSection(2)],
    menus: [aMenu([anItem(1), anItem(2)], { name: 'Parts', form, shown: { off: ['phone'] } })],
  })
  const tried = { laptop: [aTried({ id: 'id-2', label: 'Item 2', scroll: 976, top: 24, ...over })] }
  const all = found(page, ['menu-covers', 'link-tried'], tried)
  const mended = all.map((f) => f.fix && apply(aSite(page), f.fix.command).site.pages[0]!.menus[0]!)
  return { said: all.map((f) => `${f.code}: ${f.message}`), labels: all.map((f) => f.fix?.label), mended }
}

it('tells of a made menu that covers targets, with a fix', () => {
  const rail = told({ kind: 'rail', side: 'left', stands: 'over', width: 200, edge: 0 }, { coveredBy: madeMenuNamed('Parts') })
  expect(rail.said).toEqual(['menu-covers: The menu “Parts” covers the targets of “Item 2” (on “Laptop”).'])
  expect(rail.labels).toEqual(['Put it beside the page'])
  expect(rail.mended[0]!.form).toMatchObject({ stands: 'beside' })
  const marks = told({ kind: 'marks', side: 'left', labels: 'all', edge: 0 }, { coveredBy: madeMenuNamed('Parts') })
  expect(marks.labels).toEqual(['Take “Parts” off “Laptop”'])
  expect(marks.mended[0]!.shown).toEqual({ off: ['phone', 'laptop'] })
})

it.each<[string, Partial<Tried>, RegExp]>([
  ['from below alone too', {}, /^menu-covers: .* covers the targets of “Item 2”/],
  [
    'and that a link stops elsewhere besides',
    { scroll: 936, top: 64, coveredBy: madeMenuNamed('Parts') },
    /^link-tried: “Item 2” stops 40 px above its place/,
  ],
])('tells of a made menu that covers targets, %s', (_, over, message) => {
  const below = { scroll: 976, top: 24, coveredBy: madeMenuNamed('Parts') }
  const { said } = told({ kind: 'rail', side: 'left', stands: 'over', width: 200, edge: 0 }, { below, ...over })
  expect(said).toEqual([expect.stringMatching(message)])
})

it('reports items of a made menu that are left out', () => {
  const group = (key: string, depth?: number): Item => ({
    ...anItem(1),
    key,
    label: key,
    target: { kind: 'group' },
    ...(depth && { depth }),
  })
  const items = [group('Full'), { ...anItem(2), depth: 1 }, group('Empty'), { ...anItem(1), key: 'x', target: { kind: 'as-is' as const } }]
  const page = aPage({ sections: [aSection(1), aSection(2)], menus: [aMenu(items, { name: 'Parts' })] })
  expect(found(page, ['item-unwritten'], {}).map((f) => [f.message.slice(0, 30), f.fix?.label])).toEqual([
    ['The group “Empty” of “Parts” i', 'Remove “Empty”'],
    ['“Item 1” of “Parts” has no tar', 'Remove “Item 1”'],
  ])
})

it('leaves other covers to the link’s finding', () => {
  const { said } = told({ kind: 'marks', side: 'left', labels: 'all', edge: 0 }, { coveredBy: '“#chat”' })
  expect(said).toEqual(['link-tried: “Item 2” arrives under “#chat” (on “Laptop”).'])
})

it('reports items that are too small, cut off or wrapped, once per menu, with a fix', () => {
  const page = aPage({
    sections: [aSection(1), aSection(2)],
    menus: [aMenu([anItem(1), anItem(2)], { name: 'Parts', form: { kind: 'bar', place: 'top' } })],
  })
  const site = aSite(page)
  const one = (n: number, over: Partial<Tried>) => aTried({ id: `id-${n}`, label: `Item ${n}`, scroll: 0, menu: 'Parts', ...over })
  const tried = {
    laptop: [one(1, { sizeProblems: ['cut'] }), one(2, { sizeProblems: ['cut'] }), one(2, { menu: '', sizeProblems: ['tight'] })],
    phone: [one(1, { sizeProblems: ['cut', 'wrapped'] })],
  }
  const all = found(page, ['item-size'], tried)
  expect(all.map((f) => [f.message, f.fix?.label ?? null])).toEqual([
    ['“Item 2” is smaller than 24 px and too close to the next for a finger (on “Laptop”).', null],
    [
      '“Item 1”, “Item 2” don’t fit into the menu, which cuts off the labels (in “Parts” on “Laptop”, “Phone”).',
      'Fold it behind a button up to 1280 px',
    ],
    ['“Item 1” wraps to a second line (in “Parts” on “Phone”).', 'Fold it behind a button up to 390 px'],
  ])
  expect(apply(site, all[2]!.fix!.command).site.pages[0]!.menus[0]!.shown).toEqual({ small: { upTo: 390, as: 'folds' } })
})

it('takes a made bar off a screen of which it takes too much', () => {
  const page = aPage({
    sections: [aSection(1), aSection(2)],
    menus: [aMenu([anItem(1), anItem(2)], { name: 'Parts', form: { kind: 'bar', place: 'under-fixed' } })],
  })
  const low = (height: number, header: number) => ({
    laptop: { ...surveys.laptop, height, header: header ? aHeader({ rest: header, moved: header, height: header }) : null },
  })
  const told = (height: number, header: number) => found(page, ['header-tall'], {}, low(height, header))
  expect([told(300, 0), told(280, 0), told(500, 60)].map((all) => all.map((f) => [f.message.slice(0, 48), f.fix?.label]))).toEqual([
    [],
    [['On “Laptop” “Parts” takes 48 of 280 px, more tha', 'Take “Parts” off “Laptop”']],
    [['On “Laptop” the header and “Parts” take 108 of 5', 'Take “Parts” off “Laptop”']],
  ])
  const [only] = told(280, 0)
  const mended = apply(aSite(page), only!.fix!.command).site.pages[0]!
  expect(found(mended, ['header-tall'], {}, low(280, 0))).toEqual([])
})

it('gives pictures their sizes by a press, except those that can’t have one', () => {
  const pictures = [12, 14, 16].map((at) => ({ at, width: 30, height: 20, fits: at !== 14 }))
  const measured = { laptop: { ...surveys.laptop, pictures } }
  const page = aPage({ sections: [aSection(1), aSection(2)] })
  const say = (p: SitePage) => found(p, ['picture-unsized'], {}, measured)
  const [told] = say(page)
  expect(told).toMatchObject({ severity: 'note', where: { at: 12 }, fix: { label: 'Give 2 pictures their sizes' } })
  const after = apply(aSite(page), told!.fix!.command).site.pages[0]!
  expect(after.pictures?.map((p) => p.at)).toEqual([12, 16])
  expect(say(after)).toMatchObject([{ where: { at: 14 }, fix: null, message: expect.stringContaining('1 picture has no size') }])
  expect(found(page, ['picture-unsized'], {}, { laptop: { ...surveys.laptop, pictures: [] } })).toEqual([])
})

it('reports a header that shortens the page, with the fix that keeps its space', () => {
  const shrinking = { laptop: { ...surveys.laptop, header: aHeader({ at: 3, rest: 96, moved: 56, makesUp: 40 }) } }
  const page = aPage({ sections: [aSection(1), aSection(2)], header: null })
  const [told] = found(page, ['header-shrinks'], {}, shrinking)
  expect(told!.message).toContain('up to 40 px')
  const mended = apply(aSite(page), told!.fix!.command).site.pages[0]!
  expect(mended.header).toEqual({ at: 3, keep: null, backing: null, steady: true })
  expect(found(mended, ['header-shrinks'], {}, shrinking)).toEqual([])
  expect(found({ ...page, header: { at: 3, keep: null, backing: null, off: ['laptop'] } }, ['header-shrinks'], {}, shrinking)).toEqual([])
})
