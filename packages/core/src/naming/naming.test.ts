import fc from 'fast-check'
import { checkId, defaultRule, idFromTitle, isSelector, proposeId } from './index.ts'

describe('the naming rule', () => {
  it.each([
    ['Our Work', 'our-work'],
    ['  What’s on? ', 'whats-on'],
    ['Öffnungszeiten & Preise', 'offnungszeiten-preise'],
    ['2026 programme', 'section-2026-programme'],
    ['Контакты', 'kontakty'],
    ['…', ''],
    ['A very long title that goes on and on and on for ever', 'a-very-long-title-that-goes-on-and-on'],
  ])('%s becomes %s', (title, id) => expect(idFromTitle(title, defaultRule)).toBe(id))

  it('gives IDs that are free, sound and different from all others', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 30 }), { maxLength: 30 }), (titles) => {
        const taken = new Set(['top', 'contact'])
        for (const title of titles) {
          const id = proposeId(title, (lower) => taken.has(lower))
          expect(taken.has(id.toLowerCase())).toBe(false)
          expect(isSelector(id)).toBe(true)
          taken.add(id.toLowerCase())
        }
      }),
    ))
})

it.each([
  ['', 'id-empty'],
  ['my work', 'id-space'],
  ['#work', 'id-hash'],
  ['1st', 'id-selector'],
  ['a.b', 'id-selector'],
  ['Top', 'id-reserved'],
  ['there', 'id-taken'],
  ['There', 'id-case'],
])('“%s” is %s', (id, code) => expect(checkId(id, new Set(['there']))?.code).toBe(code))
it.each(['work', '_x', '--y', 'ägypten', 'a1'])('“%s” is sound', (id) => expect(checkId(id, new Set())).toBeNull())
