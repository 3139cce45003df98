/** A page that scrolls in an element, from the survey to what is handed over. */
import { openFindings } from '../findings/index.ts'
import { anInput } from '../handover/builder.ts'
import { layoutOf, pageEdits, writePage, type ScriptPart } from '../handover/index.ts'
import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { revisePage } from '../revision/index.ts'
import { aSite } from '../site/builder.ts'
import { apply, elementsOf, type SitePage } from '../site/index.ts'
import { aPart, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { isReached, solveArrivals } from './index.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
const flat = (css: string) => css.replace(/\/\*.*?\*\//gs, '').replace(/\s+/g, ' ')
const menu = '<nav><a href="#one">One</a><a href="#two">Two</a></nav>'
const parts = '<section id=one><h2>One</h2><p>words</p></section><section id=two><h2>Two</h2><p>words</p></section>'
const source = `<title>T</title>${menu}<main class="pane">${parts}</main>`

function version(text: string) {
  const parsed = parsePage(bytes(text))
  return { parsed, reading: readParsed(parsed, text.length, 'index.html') }
}
type Version = ReturnType<typeof version>
const at = ({ parsed }: Version, name: string) => parsed.tree.all.find((el) => el.attrs.get('class') === name)!.at

/** Sections at 100 and 900 px of 2,000, of which 600 are seen at once. */
function surveyOf({ reading }: Version, scroller: Survey['scroller'], margin = 0): Survey {
  const [one, two] = ['one', 'two'].map((id) => reading.ids.find((i) => i.id === id)!.at)
  return aSurvey({
    scroller,
    pageHeight: 2000,
    maxScroll: 1400,
    padding: 10,
    parts: [aPart({ at: one!, top: 500, bottom: 900, margin }), aPart({ at: two!, top: 900, bottom: 2000, margin })],
  })
}
const setUp = (v: Version, ...surveys: Survey[]): SitePage => ({
  key: 'p1',
  file: 'index.html',
  source: '',
  title: '',
  ...proposeSetUp(v.reading, surveys, defaultRule),
  // Nothing covers what this page is about, so that it might do without offsets of ours.
  travel: { smooth: true, breathing: 24 },
})
function written(v: Version, page: SitePage, survey: Survey): { text: string; parts: readonly ScriptPart[] } {
  let parts: readonly ScriptPart[] = []
  const runtime = (those: readonly ScriptPart[]) => {
    parts = those
    return '/* data-wb --wb-header */'
  }
  const edits = pageEdits(anInput(page, v.reading, { surveys: { laptop: survey }, runtime }))
  return { text: new TextDecoder().decode(writePage(bytes(v.parsed.decoded.text), v.parsed, edits).bytes), parts }
}

const now = version(source)
const pane = { at: at(now, 'pane'), height: 600 }
const survey = surveyOf(now, pane)
const page = setUp(now, survey)
const unaware = setUp(now, surveyOf(now, null))

it('is set up with its scroller, which is an element of the document', () => {
  expect(page.scroller).toBe(pane.at)
  expect(elementsOf(page).has(pane.at)).toBe(true)
  expect(setUp(now, surveyOf(now, null)).scroller).toBeUndefined()
})

it('gets offsets and motion for the scroller too, is marked, and has the script’s part for it', () => {
  const { text, parts: those } = written(now, page, survey)
  expect(text).toContain('<main data-wb-scroller class="pane">')
  expect(flat(text)).toContain('html:root, :root [data-wb-scroller] { scroll-padding-top: calc(var(--wb-header) + 24px) !important; }')
  expect(flat(text)).toContain('html:root, :root [data-wb-scroller] { scroll-behavior: smooth; }')
  expect(those).toContain('scroller')
  const plain = written(now, { ...setUp(now, surveyOf(now, null)) }, surveyOf(now, null))
  expect(plain.text).not.toContain('data-wb-scroller')
  expect(plain.parts).not.toContain('scroller')
})

it('changes nothing that affects layout, so that surveys stay valid', () => {
  const input = (of: SitePage) => ({ ...anInput(of, now.reading) })
  expect(layoutOf(input(page))).toBe(layoutOf(input(unaware)))
})

it('recognises a scroller when brought in again, measured or not, and forgets one that no longer scrolls', () => {
  const { text } = written(now, page, survey)
  const again = version(text)
  expect(again.reading.written.scroller).toBe(at(again, 'pane'))
  expect(setUp(again).scroller).toBe(at(again, 'pane'))
  const there = surveyOf(again, { at: at(again, 'pane'), height: 600 })
  expect(written(again, setUp(again, there), there).text).toBe(text)
  const gone = surveyOf(again, null)
  expect(written(again, setUp(again, gone), gone).text).not.toContain('data-wb-scroller')
})

it('keeps the scroller in a new version, or drops it if it’s gone', () => {
  const decisions = { sections: {}, added: [] }
  const take = (text: string) => {
    const after = version(text)
    const command = revisePage(page, now, after, decisions, { source: 'b', title: '' }, defaultRule)
    const site = apply(aSite(page), command)
    expect(apply(site.site, site.inverse).site).toEqual(aSite(page))
    return [site.site.pages[0]!.scroller, after] as const
  }
  const [kept, after] = take(`<p>New</p>${source}`)
  expect(kept).toBe(at(after, 'pane'))
  expect(take(`${menu}${parts}`)[0]).toBeUndefined()
})

it('puts a made menu into the scroller, as its first element', () => {
  const bare = version(`<title>T</title><main class="pane">${parts}</main>`)
  const seen = surveyOf(bare, { at: at(bare, 'pane'), height: 600 })
  const { text } = written(bare, setUp(bare, seen), seen)
  expect(text).toMatch(/<main data-wb-scroller class="pane"><nav data-wb="menu"/)
  expect(flat(text)).toContain('position: sticky; top: 0; box-sizing')
  expect(flat(text)).not.toContain('padding-top: 48px')
})

it('uses our offsets where they’re written, and its own elsewhere', () => {
  const lands = (of: SitePage, by: Survey) =>
    solveArrivals({ ...of, sections: of.sections.map((s) => ({ ...s, toTop: false })) }, by).map((a) => a.land)
  expect(lands(page, survey)).toEqual([476, 876])
  expect(isReached(unaware, survey)).toBe(false)
  expect(lands(unaware, surveyOf(now, pane, 30))).toEqual([460, 860])
  expect(lands(page, surveyOf(now, null))).toEqual([476, 876])
})

describe('offsets without effect, because the page scrolls elsewhere', () => {
  const found = (of: SitePage, by: Survey) =>
    openFindings(
      {
        site: aSite(of),
        page: of,
        reading: now.reading,
        undeclared: new Set(),
        named: { styles: [], scripts: [] } as never,
        known: new Map() as never,
        surveys: { laptop: by },
        tried: {},
      },
      [],
    ).filter((f) => f.code === 'scrolls-inside')

  it('are found, and one press writes them there', () => {
    const [finding] = found(unaware, survey)
    expect(finding!.message).toContain('On “Laptop” the page scrolls inside an element, but')
    expect(finding!.fix!.label).toBe('Write offsets there')
    const { site, inverse } = apply(aSite(unaware), finding!.fix!.command)
    expect(site.pages[0]).toEqual({ ...unaware, scroller: pane.at })
    expect(found(site.pages[0]!, survey)).toEqual([])
    expect(apply(site, inverse).site).toEqual(aSite(unaware))
  })

  it('are reported if a script builds the scroller, without a fix', () => {
    const [finding] = found(page, surveyOf(now, { at: null, height: 600 }))
    expect(finding).toMatchObject({ severity: 'error', fix: null })
    expect(finding!.message).toContain('an element built by its scripts')
  })

  it('are no fault on a page whose document scrolls', () => expect(found(unaware, surveyOf(now, null))).toEqual([]))
})
