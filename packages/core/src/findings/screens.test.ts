/** What screens and tries say of a page as a whole: headers that leave no room, and what lies over all of it. */
import { readPage } from '../page/index.ts'
import { aMenu, anItem, aPage, aSection, aSite } from '../site/builder.ts'
import { apply, type SitePage } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { aTried } from '../walk/builder.ts'
import { judgeTried, type Tried } from '../walk/index.ts'
import { openFindings } from './index.ts'

const read = (head: string) =>
  readPage(
    new TextEncoder().encode(`<!doctype html>${head}<section id="id-1"><h2>One</h2></section><section id="id-2"><h2>Two</h2></section>`),
  )
const parts = [1, 2].map((n) => aPart({ at: n * 10, top: n * 500, movedTop: n * 500, bottom: n * 500 + 500 }))
const page = aPage({
  sections: [aSection(1), aSection(2)],
  menus: [aMenu([anItem(1), anItem(2)])],
  header: { at: 3, keep: null, backing: null },
})

const found = (code: string, as: SitePage, surveys: Record<string, Survey>, tried: Record<string, Tried[]> = {}, head = '') =>
  openFindings(
    {
      site: aSite(as),
      page: as,
      reading: read(head),
      undeclared: new Set(),
      known: new Set(),
      named: { styles: [], scripts: [] },
      surveys,
      tried,
    },
    [],
  ).filter((f) => f.code === code)

it('reports a header over more than half of a screen, and one press lets it go', () => {
  const header = aHeader({ at: 3, position: 'static', height: 429, rest: 0, moved: 0, isOver: true })
  const surveys = { phone: aSurvey({ screen: 'phone', width: 390, height: 844, header, parts }) }
  const [told] = found('header-tall', page, surveys)
  expect([told!.severity, told!.message]).toEqual([
    'error',
    'On “Phone” the header takes 429 of 844 px, more than half of the screen: links arrive under it.',
  ])
  const next = apply(aSite(page), told!.fix!.command).site.pages[0]!
  expect(next.header).toEqual({ at: 3, keep: null, backing: null, off: ['phone'] })
  expect(found('header-tall', next, surveys)).toEqual([])
})

it('reports an overlay once, with its screens', () => {
  const one = (id: string, overlay: string) => aTried({ id, label: id, scroll: 0, overlay })
  const tried = { laptop: [one('id-1', '“#ask”'), one('id-2', '“#ask”')], phone: [one('id-1', '“#ask”'), one('id-2', '')] }
  expect(found('overlay-blocks', page, {}, tried).map((f) => f.message)).toEqual([
    '“#ask” covers the page and blocks the menu until closed (on “Laptop”, “Phone”). Links were tried without it.',
  ])
  expect(found('overlay-blocks', page, {}, { laptop: [one('id-1', '')] })).toEqual([])
})

it('reports a policy that blocks a handover, once there is one', () => {
  const head = '<meta http-equiv="Content-Security-Policy" content="default-src \'self\'">'
  expect(found('policy-blocks', page, {}, {}, head).map((f) => f.message)).toEqual([
    expect.stringContaining('blocks inline scripts and styles'),
  ])
  expect(found('policy-blocks', aPage(), {}, {}, head)).toEqual([])
  expect(found('policy-blocks', page, {})).toEqual([])
  const menus = [aMenu([anItem(1)], { form: { kind: 'found', elements: [4], mark: { on: 'link', name: 'on' } } })]
  const works = {
    ...page,
    menus,
    travel: { ...page.travel, pageOffsets: true as const },
    highlight: { ...page.highlight, pageMark: true as const },
  }
  expect(found('policy-blocks', works, {}, {}, head)).toEqual([])
})

it('reports a page that undoes scrolling, with its screens', () => {
  const surveys = { laptop: aSurvey({ screen: 'laptop', isHeld: true }), phone: aSurvey({ screen: 'phone' }) }
  expect(found('scroll-held', page, surveys).map((f) => [f.severity, f.message])).toEqual([
    ['error', expect.stringContaining('(on “Laptop”)')],
  ])
  // What the script puts back behind it is no remedy.
  const taken = { laptop: [aTried({ id: 'id-1', label: 'Item 1', scroll: 4000, isTaken: true })] }
  const fixes = (isHeld: boolean) =>
    found('link-tried', page, { laptop: aSurvey({ parts, isHeld }) }, taken).map((f) => f.fix?.command.type ?? null)
  expect([fixes(false), fixes(true)]).toEqual([['travel/presses'], [null]])
  expect(found('scroll-held', page, { phone: aSurvey({ screen: 'phone' }) })).toEqual([])
})

it('counts a page pushed aside as an open menu, and a link in another tab as no arrival', () => {
  const verdict = (over: Partial<Tried>) => judgeTried(page, null, [aTried({ id: 'id-1', label: 'Item 1', scroll: 0, ...over })])[0]!
  expect(verdict({ isSideways: true, leftOpen: { menu: 7, by: 8 } }).why).toBe('moves the page sideways, because its menu stays open')
  expect(verdict({ isSideways: true }).why).toContain('isn’t supported yet')
  expect(verdict({ leaves: true })).toMatchObject({ fault: 'leaves', why: 'opens in another tab' })
  const told = found(
    'menu-left-open',
    page,
    {},
    { phone: [aTried({ id: 'id-1', label: 'Item 1', scroll: 0, isSideways: true, leftOpen: { menu: null, by: 8 } })] },
  )
  expect(told).toHaveLength(1)
})
