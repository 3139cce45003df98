import { defaultRule } from '../naming/index.ts'
import { readPage } from '../page/index.ts'
import { aHeader, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { proposeSetUp } from './index.ts'

const text = '<p>Some words that make this part weigh something on the page.</p>'
const read = (body: string) => readPage(new TextEncoder().encode(`<!doctype html><meta charset=utf-8><body>${body}`))
const sections = (...titles: string[]) => titles.map((t) => `<section><h2>${t}</h2>${text}</section>`).join('')
const propose = (body: string, surveys: Survey[] = []) => proposeSetUp(read(body), surveys, defaultRule)

const targets = (body: string) => {
  const { menus, sections } = propose(body)
  return menus[0]!.items.map((i) => [
    i.label,
    i.target.kind === 'section' ? sections.find((s) => s.key === (i.target as { section: string }).section)!.id : i.target.kind,
  ])
}

const header = aHeader({ at: 5, position: 'static', height: 60, rest: 0, moved: 0, canStay: true, transparent: true })
const survey = (over: Partial<Survey>): Survey => aSurvey({ pageHeight: 4000, maxScroll: 3200, ...over })

describe('the one press', () => {
  it('matches items of a found menu by hash, by case, and by label', () =>
    expect(
      targets(`<header><nav><a href="#work">Things</a><a href="#TEAM">Us</a><a href="#">Pricing</a><a href="#">Find us</a><a href="shop.html">Shop</a><a href="#">Log in</a></nav></header>
        <section id=work><h2>Our work</h2>${text}</section><section id=team><h2>People</h2>${text}</section>${sections('Prices', 'How to find us')}`),
    ).toEqual([
      ['Things', 'work'],
      ['Us', 'team'],
      ['Pricing', 'prices'],
      ['Find us', 'how-to-find-us'],
      ['Shop', 'as-is'],
      ['Log in', 'as-is'],
    ]))

  it('matches by class where an ID was meant', () =>
    expect(
      targets(
        `<nav><a href="#">FAQ</a><a href="#">Rooms</a></nav><section class="faq"><h2>Good to know</h2>${text}</section>${sections('Rooms')}`,
      )[0],
    ).toEqual(['FAQ', 'good-to-know']))

  it('makes a menu of all sections where the page has none', () => {
    const { menus } = propose(`<header><h1>Logo</h1></header>${sections('One', 'Two')}`)
    expect(menus).toMatchObject([{ form: { kind: 'bar' }, items: [{ label: 'One' }, { label: 'Two' }] }])
  })

  it('does not take the links of a footer, or of running text, for a menu', () =>
    expect(
      propose(
        `${sections('One', 'Two')}<p><a href="#a">a</a> <a href="#b">b</a></p><footer><ul><li><a href="#">One</a><li><a href="#">Two</a></ul></footer>`,
      ).menus[0]!.form.kind,
    ).toBe('bar'))

  it('does not take a table of contents in the text for the header menu', () =>
    expect(
      propose(
        `<header><a href="/">Home</a></header><main><h1>Guide</h1>${text}<nav><a href="#a">A</a><a href="#b">B</a></nav><h2 id=a>A</h2>${text}<h2 id=b>B</h2>${text}</main>`,
      ).menus[0]!.form.kind,
    ).toBe('bar'))

  it('makes a header stay that would not, and paints behind it', () => {
    const body = `<header><nav><a href="#">One</a><a href="#">Two</a></nav></header>${sections('One', 'Two')}`
    const at = read(body).header!
    expect(propose(body, [survey({ header: { ...header, at } })]).header).toEqual({ at, keep: 'sticky', backing: 'rgb(255, 255, 255)' })
    expect(propose(body, [survey({ header: { ...header, at, position: 'absolute' } })]).header!.keep).toBe('fixed')
    expect(propose(body, [survey({ header: { ...header, at, canStay: false } })]).header!.keep).toBeNull()
    expect(propose(body, [survey({ header: { ...header, at, position: 'sticky', rest: 60, moved: 60 } })]).header!.keep).toBeNull()
  })

  it('sends the first section to the top, unless it begins further down', () => {
    const body = sections('One', 'Two')
    const part = { at: read(body).candidates[0]!.at, bottom: 0, movedTop: 0, margin: 0, hasBox: true, heading: null, background: '' }
    expect(propose(body, [survey({ parts: [{ ...part, top: 90 }] })]).sections.map((s) => s.toTop)).toEqual([true, false])
    expect(propose(body, [survey({ parts: [{ ...part, top: 1500 }] })]).sections[0]!.toTop).toBe(false)
  })
})
