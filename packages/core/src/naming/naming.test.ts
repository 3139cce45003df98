import fc from 'fast-check'
import {
  checkId,
  defaultRule,
  idFromTitle,
  isSelector,
  proposeId,
  soundId,
  typedName,
  wrapName,
  type IdContext,
  type NamingRule,
} from './index.ts'

const rule = (over: Partial<NamingRule>): NamingRule => ({ ...defaultRule, ...over })

describe('the naming rule', () => {
  it.each([
    ['Our Work', 'our-work'],
    ['  What’s on? ', 'whats-on'],
    ['Öffnungszeiten & Preise', 'offnungszeiten-preise'],
    ['2026 programme', 'section-2026-programme'],
    ['Контакты', 'kontakty'],
    ['🚀 Launch', 'launch'],
    ['…', ''],
    ['A very long title that goes on and on and on for ever', 'long-title'],
    ['Donaudampfschifffahrtsgesellschaftskapitänspatent', 'donaudampfschifffahrtsgesellschaftskapit'],
  ])('%s becomes %s', (title, id) => expect(idFromTitle(title)).toBe(id))

  it.each<[Partial<NamingRule>, string, string]>([
    [{ letters: 'as-typed' }, 'Our FAQ page', 'Our-FAQ-page'],
    [{ separator: '_' }, 'Our work', 'our_work'],
    [{ separator: '' }, 'how we work', 'howWeWork'],
    [{ separator: '', letters: 'as-typed' }, 'How we work', 'HowWeWork'],
    [{ accents: 'kept' }, 'Über uns: straße', 'über-uns-straße'],
    [{ accents: 'kept' }, 'Cafe\u0301', 'café'],
    [{ scripts: 'kept' }, 'Наши работы', 'наши-работы'],
    [{ scripts: 'kept' }, 'हमारे काम', 'हमारे-काम'],
    [{ prefix: 'sec' }, 'Our work', 'sec-our-work'],
    [{ prefix: 'sec_', suffix: 'x' }, 'Our work', 'sec_our-work-x'],
    [{ prefix: 'sec' }, '2026', 'sec-2026'],
    [{ beforeDigit: 'n' }, '2026', 'n2026'],
    [{ dropped: ['the', 'of'] }, 'The house of glass', 'house-glass'],
    [{ dropped: ['the', 'who'] }, 'The Who', 'the-who'],
    [{ longest: 12, prefix: 'ab' }, 'One two three', 'ab-one-two'],
  ])('%j makes “%s” %s', (over, title, id) => expect(idFromTitle(title, rule(over))).toBe(id))

  it('gives free, valid and unique IDs, whatever the rule', () =>
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'grapheme', maxLength: 30 }), { maxLength: 30 }),
        fc.record({
          letters: fc.constantFrom('lower' as const, 'as-typed' as const),
          separator: fc.constantFrom('-' as const, '_' as const, '' as const),
          accents: fc.constantFrom('folded' as const, 'kept' as const),
          scripts: fc.constantFrom('transliterated' as const, 'kept' as const),
          prefix: fc.constantFrom('', 'p', 'sec_'),
          suffix: fc.constantFrom('', 'end'),
          longest: fc.integer({ min: 4, max: 50 }),
        }),
        (titles, over) => {
          const taken = new Set(['top', 'contact'])
          for (const title of titles) {
            const id = proposeId(title, (lower) => taken.has(lower), rule(over))
            expect(taken.has(id.toLowerCase())).toBe(false)
            // What the rule itself puts around a name, one letter and a number may be all that there is.
            const least = [...(over.prefix + over.suffix)].length + 'section---'.length + 12
            expect([...id].length).toBeLessThanOrEqual(Math.max(over.longest, least))
            expect(id).not.toMatch(/\p{Surrogate}/u)
            expect(isSelector(id)).toBe(true)
            taken.add(id.toLowerCase())
          }
        },
      ),
    ))

  it('keeps the limit with prefix for digits and number', () => {
    const long = '2026 programme of talks, walks and evenings under the stars'
    expect([...idFromTitle(long)].length).toBeLessThanOrEqual(40)
    expect(idFromTitle(long)).toBe('section-2026-programme-of-talks')
    const title = 'A very long title that goes on and on an'
    const taken = new Set<string>()
    for (let n = 0; n < 12; n++) {
      const id = proposeId(title, (x) => taken.has(x))
      expect([id, id.length <= 40]).toEqual([id, true])
      taken.add(id)
    }
    expect(taken.size).toBe(12)
  })

  it('never splits a letter or its marks', () => {
    const kept = rule({ scripts: 'kept', longest: 5 })
    expect(idFromTitle('𐎀𐎁𐎂𐎃𐎄𐎅', kept)).toBe('𐎀𐎁𐎂𐎃𐎄')
    for (const longest of [4, 5, 6, 7, 8]) {
      const id = idFromTitle('किताबें', rule({ scripts: 'kept', longest }))
      expect('किताबें'.startsWith(id)).toBe(true)
      expect(
        [...new Intl.Segmenter('hi', { granularity: 'grapheme' }).segment('किताबें')].some(
          (_, i, all) =>
            all
              .slice(0, i + 1)
              .map((s) => s.segment)
              .join('') === id,
        ),
      ).toBe(true)
    }
  })

  it('gives the name to type in another system, and the page’s ID', () => {
    const wrapping = rule({ prefix: 'page', suffix: 'anchor', wraps: true })
    expect(wrapName('work', wrapping)).toBe('page-work-anchor')
    expect(typedName('page-work-anchor', wrapping)).toBe('work')
    expect(typedName('work', wrapping)).toBeNull()
    expect(typedName('page-anchor', wrapping)).toBeNull()
    expect(proposeId('Work', (x) => x === 'page-work-anchor', wrapping)).toBe('page-work-2-anchor')
  })
})

const context = (over: Partial<IdContext> = {}): IdContext => ({
  rule: defaultRule,
  owners: (lower) =>
    [
      { id: 'there', what: 'The p on line 7' },
      { id: 'about', what: 'The section “About”' },
    ].filter((o) => o.id === lower),
  formerOwner: (id) => (id.toLowerCase() === 'old' ? 'News' : null),
  undeclared: new Set(['config']),
  title: 'Our work',
  ...over,
})

it.each([
  ['', 'id-empty', 'our-work'],
  ['   ', 'id-space', 'our-work'],
  ['my work', 'id-space', 'my-work'],
  ['#work', 'id-hash', 'work'],
  ['#my work', 'id-space', 'my-work'],
  ['1st', 'id-selector', 'section-1st'],
  ['-1', 'id-selector', 'section-1'],
  ['a.b', 'id-selector', 'a-b'],
  ['Top', 'id-reserved', 'top-2'],
  ['TOP', 'id-reserved', 'top-2'],
  ['Night Sky', 'id-space', 'night-sky'],
  ['there', 'id-taken', 'there-2'],
  ['There', 'id-case', 'there-2'],
  ['old', 'former-clash', 'old-2'],
  ['config', 'id-shadow', 'config-2'],
  ['???', 'id-selector', 'our-work'],
])('“%s” is %s, and “%s” is offered', (id, code, suggestion) => expect(checkId(id, context())).toMatchObject({ code, suggestion }))
it.each(['work', '_x', '--y', 'ägypten', 'a1'])('“%s” is sound', (id) => expect(checkId(id, context())).toBeNull())
it('names the element with the ID', () => expect(checkId('there', context())!.message).toContain('The p on line 7'))
it('never suggests a faulty ID', () =>
  fc.assert(
    fc.property(fc.oneof(fc.string({ unit: 'grapheme' }), fc.constantFrom('top', 'there', 'Old', '#config', '9')), (id) =>
      expect(checkId(soundId(id, context()), context())).toBeNull(),
    ),
  ))
