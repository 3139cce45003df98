import { GLIDES, HEADER, lasts, readSettings, STEADY } from '../../contract/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { readPage } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { aHeader, aSurvey } from '../../survey/builder.ts'
import type { SurveyHeader } from '../../survey/index.ts'
import { anInput } from '../builder.ts'
import { layoutOf, pageEdits } from '../index.ts'

const links = '<nav><a href="#a">A</a><a href="#b">B</a></nav>'
const reading = readPage(
  new TextEncoder().encode(
    `<div id=wide>${links}</div><div id=narrow>${links}</div><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section>`,
  ),
)
const [wide, narrow] = ['wide', 'narrow'].map((id) => reading.ids.find((i) => i.id === id)!.at)

function marked(phone: SurveyHeader | null) {
  const surveys = {
    laptop: aSurvey({ header: aHeader({ at: wide! }) }),
    phone: aSurvey({ screen: 'phone', width: 390, height: 844, header: phone }),
  }
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(reading, Object.values(surveys), defaultRule) }
  const edits = pageEdits(anInput(page, reading, { surveys }))
  return { page, at: edits.flatMap((e) => (e.kind === 'attribute' && e.name === HEADER ? [[e.at, e.value]] : [])) }
}

it('marks each screen’s header', () => {
  const { page, at } = marked(aHeader({ at: narrow!, position: 'fixed' }))
  expect(at).toEqual([
    [wide, ''],
    [narrow, ''],
  ])
  expect(layoutOf(anInput(page, reading))).not.toContain(String(narrow))
})

it('keeps the page’s transitions, on each screen', () => {
  const { page } = marked(null)
  const moving = { ...page, header: { ...page.header!, onScroll: { after: 0, away: true as const } } }
  const style = (laptop: string, phone: string) => {
    const surveys = {
      laptop: aSurvey({ header: aHeader({ at: wide!, transition: laptop }) }),
      phone: aSurvey({ screen: 'phone', width: 390, height: 844, header: aHeader({ at: wide!, transition: phone }) }),
    }
    const edits = pageEdits(anInput(moving, reading, { surveys }))
    const text = edits.map((e) => JSON.stringify(e)).join()
    return [...text.matchAll(/transition: ([^;]+);/g)].map((m) => m[1])
  }
  expect(style('', '')).toEqual([GLIDES])
  expect(style('padding 0.3s', 'padding 0.3s')).toEqual([`padding 0.3s, ${GLIDES}`])
  expect(style('padding 0.3s', '')).toEqual([`padding 0.3s, ${GLIDES}`, GLIDES])
})

it('is measured again when another section starts under it', () => {
  const { page } = marked(null)
  const under = [{ screen: 'laptop', head: 0, frame: 0 }]
  const over = { ...page, menus: [], header: { ...page.header!, under } }
  const keys = [{ ...page, menus: [] }, over, { ...over, sections: over.sections.slice(1) }].map((p) => layoutOf(anInput(p, reading)))
  expect(new Set(keys).size).toBe(3)
})

it('marks other bars at the top of any screen, because all cover', () => {
  const sub = aHeader({ at: narrow!, others: [wide!], position: 'sticky' })
  expect(marked(sub).at).toEqual([
    [wide, ''],
    [narrow, ''],
  ])
  expect(marked(aHeader({ at: wide!, others: [narrow!], position: 'fixed' })).at).toEqual([
    [wide, ''],
    [narrow, ''],
  ])
})

it.each([
  ['the same one', aHeader({ at: wide! })],
  ['one that scrolls away', aHeader({ at: narrow!, position: 'static' })],
  ['one that scripts build', aHeader({ at: null })],
  ['none', null],
])('marks no other if a screen has %s', (_, header) => expect(marked(header).at).toEqual([[wide, '']]))

it.each([
  ['a fixed bar', 'fixed', 50, true],
  ['a sticky one in most of the page', 'sticky', 900, true],
  ['a heading that sticks in its own section', 'sticky', 400, false],
])('counts %s as a bar of the page, or not', (_, position, room, is) => {
  const box = (clientHeight: number, scrollHeight = clientHeight) => ({ clientHeight, scrollHeight })
  expect(lasts(position, box(60), box(room), box(800, 1500))).toBe(is)
})

it('counts sticky bars in the scroller, however small', () => {
  const pane = { clientHeight: 600, scrollHeight: 4000 }
  expect(lasts('sticky', { clientHeight: 60, scrollHeight: 60 }, pane, pane)).toBe(true)
})

it('writes the figures of a header that keeps its space, by screen', () => {
  const surveys = {
    laptop: aSurvey({ header: aHeader({ at: wide!, height: 96, moved: 56, makesUp: 40 }) }),
    phone: aSurvey({ screen: 'phone', width: 390, height: 844, header: aHeader({ at: narrow! }) }),
  }
  const setUp = proposeSetUp(reading, Object.values(surveys), defaultRule)
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...setUp, header: { ...setUp.header!, steady: true as const } }
  const edits = pageEdits(anInput(page, reading, { surveys, runtime: (parts) => parts.join(' ') }))
  expect(edits.flatMap((e) => (e.kind === 'attribute' && e.name === STEADY ? e.at : []))).toEqual([wide])
  const text = (role: string) => edits.flatMap((e) => (e.kind === 'piece' && e.role === role ? e.text : [])).join('')
  expect(text('style')).toMatch(/--wb-tall: 96px;\s+--wb-smaller: 40px;/)
  expect(text('style')).toMatch(/@media [^{]+\{\s+html:root \{\s+--wb-smaller: none;/)
  expect(text('script')).toContain('steady')
  expect(readSettings(text('settings'))).toMatchObject({ headerSteady: true })
  expect(layoutOf(anInput(page, reading, { surveys }))).not.toBe(layoutOf(anInput({ ...page, ...setUp }, reading, { surveys })))
})
