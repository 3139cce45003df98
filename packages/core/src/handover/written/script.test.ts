import { readPage } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { aPart, aSurvey } from '../../survey/builder.ts'
import { anInput } from '../builder.ts'
import { pageEdits } from '../index.ts'

const reading = readPage(
  new TextEncoder().encode('<!doctype html><title>T</title><section><h2>A</h2></section><section><h2>B</h2></section>'),
)

const partsWith = (sticks: boolean): string[] => {
  const surveys = { laptop: aSurvey({ parts: reading.candidates.map(({ at }) => aPart({ at, top: 0, bottom: 900, sticks })) }) }
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const edits = pageEdits(anInput(page, reading, { surveys, runtime: (parts) => parts.join(' ') }))
  return edits.flatMap((e) => (e.kind === 'piece' && e.role === 'script' ? e.text.split(' ') : []))
}

it('has the sticky part only if one is sticky, with what it needs', () => {
  expect(partsWith(false)).not.toContain('sticky')
  const parts = partsWith(true)
  expect(parts).toEqual(expect.arrayContaining(['anchors', 'classes', 'header', 'lists', 'made', 'scripts', 'scroller', 'sticky']))
  expect(parts).not.toContain('travel')
})
