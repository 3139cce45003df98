import { defaultRule } from '../naming/index.ts'
import { parsePage, readParsed } from '../page/index.ts'
import { aPage, aSection } from '../site/builder.ts'
import { likelySection } from './index.ts'

const source =
  '<section class="prices-block"><h2>What it costs</h2></section><section><h2>Our story</h2></section><section><h2>Contact</h2></section>'
const bytes = new TextEncoder().encode(source)
const reading = readParsed(parsePage(bytes), bytes.length, 'index.html')
const at = (n: number) => reading.candidates.filter((c) => c.offered)[n]!.at
const rule = { ...defaultRule, prefix: 'sec', suffix: '' }
const page = aPage({
  sections: [
    aSection(1, { at: at(0), id: 'tickets', title: 'What it costs', former: ['cost'] }),
    aSection(2, { at: at(1), id: 'our-störy', title: 'Our story' }),
    aSection(3, { at: at(2), id: 'sec-contact', title: 'Write to us' }),
    aSection(4, { at: 9998, id: 'part-1', title: 'Part one' }),
    aSection(5, { at: 9999, id: 'part-2', title: 'Part two' }),
  ],
})
const meant = (wanted: string, label = '') => {
  const likely = likelySection(wanted, label, page, reading, rule)
  return likely && [likely.section.id, likely.why]
}

it.each([
  ['#tickets', '', 'tickets', 'an extra #'],
  ['%23tickets', '', 'tickets', 'an extra #'],
  [' tickets', '', 'tickets', 'an extra #'],
  ['#cost', '', 'tickets', 'an extra #'],
  ['Tickets', '', 'tickets', 'only capitals differ'],
  ['contact', '', 'sec-contact', 'missing'],
  ['sec-tickets', '', 'tickets', 'suffix is extra'],
  ['Our Story', '', 'our-störy', 'spaces, signs or accents'],
  ['what-it-costs', '', 'tickets', 'title'],
  ['prices-block', '', 'tickets', 'class'],
  ['tikets', '', 'tickets', 'one letter differs'],
  ['ticktes', '', 'tickets', 'one letter differs'],
  ['zzz', 'Write to us', 'sec-contact', 'similar words'],
  ['', 'Our story', 'our-störy', 'similar words'],
])('%j with the label %j means #%s', (wanted, label, id, why) => expect(meant(wanted, label)).toEqual([id, expect.stringContaining(why)]))

it.each([['part-3'], ['zz'], ['']])('%j has no likely target', (wanted) => expect(meant(wanted)).toBeNull())
