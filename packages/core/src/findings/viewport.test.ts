import { defaultRule } from '../naming/index.ts'
import { readPage } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { aSite } from '../site/builder.ts'
import { aSurvey } from '../survey/builder.ts'
import { openFindings } from './index.ts'

const told = (head: string, screen = 'phone', isSetUp = true) => {
  const reading = readPage(new TextEncoder().encode(`<!doctype html>${head}<section><h2>A</h2></section><section><h2>B</h2></section>`))
  const page = {
    key: 'p1',
    file: 'index.html',
    source: '',
    title: '',
    ...proposeSetUp(reading, [], defaultRule),
    ...(!isSetUp && { sections: [] }),
  }
  const named = { styles: [] as string[], scripts: [] as string[] }
  const surveys = { [screen]: aSurvey({}) }
  const input = { site: aSite(page), page, reading, undeclared: new Set<string>(), known: new Set<string>(), named, surveys, tried: {} }
  return openFindings(input, []).flatMap((f) => (f.code === 'viewport-fixed' ? f.message : []))
}
const meta = (content: string) => `<meta name="Viewport" content="${content}">`

it.each([
  ['nothing', '', '980 px'],
  ['a width in px', meta('width=1024'), '1024 px'],
  ['only what it may grow to', meta('maximum-scale=2, minimum-width=3'), '980 px'],
  ['another width last', meta('width=device-width') + meta('initial-scale=1; width = 700'), '700 px'],
])('reports a page that phones lay out wider: %s', (_, head, px) => expect(told(head)).toEqual([expect.stringContaining(px)]))
it.each([
  meta('width=device-width, initial-scale=1'),
  meta('width=1024') + meta('width=device-width'),
  meta('initial-scale=1.0'),
  meta('width=320'),
])('is silent on %s', (head) => expect(told(head)).toEqual([]))
it('reports it before the set-up', () => expect(told('', 'phone', false)).toHaveLength(1))
it('is silent without a phone’s survey', () => expect(told('', 'laptop')).toEqual([]))
