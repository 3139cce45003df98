import { readPage } from './read.ts'
import { starterPage } from './starter.ts'

const read = (outline: string) => readPage(new TextEncoder().encode(starterPage(outline)))
const offered = (outline: string) =>
  read(outline)
    .candidates.filter((c) => c.offered)
    .map((c) => c.title)

it('makes a section of each heading, and a title of a lone first one', () => {
  const outline = '# The mill\nFlour since last Tuesday.\n\n## Our work\nWe grind.\n\n- oats\n- rye\n\n## Visit us\n### By boat\nRow.'
  expect(offered(outline)).toEqual(['The mill', 'Our work', 'Visit us'])
  const html = starterPage(outline)
  expect(html).toContain('<title>The mill</title>')
  expect(html).toContain('<ul>\n<li>oats</li>\n<li>rye</li>\n</ul>')
  expect(html).toContain('<h3>By boat</h3>\n<p>Row.</p>')
})

it.each([
  ['# One\na\n# Two\nb', ['One', 'Two']],
  ['### One\na\n### Two\nb\n#### Below\nc', ['One', 'Two']],
  ['## Única\nuna línea', ['Única']],
  ['One\n===\na\n\nTwo\n---\nb', ['One', 'Two']],
  ['Words first.\n\n## One\na\n\n## Two\nb', ['One', 'Two']],
])('%j has the sections %j', (outline, titles) => expect(offered(outline)).toEqual(titles))

it('reads markup and scripts as text', () => {
  const html = starterPage(
    '# A <b>bold</b> & "quoted" title\n<script>alert(1)</script>\n\n## Two\n[a](javascript:alert(1)) [b](https://x.example/?a=1&b=2) **strong** <img src=x onerror=alert(1)>',
  )
  expect(html).not.toMatch(/<script|<img|javascript:/)
  expect(html).toContain('<strong>strong</strong>')
  expect(html).toContain('href="https://x.example/?a=1&amp;b=2"')
  expect(html).toContain('<h1>A &lt;b&gt;bold&lt;/b&gt; &amp; &quot;quoted&quot; title</h1>')
})

it('asks for a heading if there is none', () => expect(() => starterPage('just words')).toThrow('start each section with a line such as'))
