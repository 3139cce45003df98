import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { liveScripts, scriptIn, scripts } from './text.ts'

const all = [...Object.entries(scripts('small')), ...Object.entries(scripts('plain')), ...Object.entries(liveScripts())] as [
  string,
  string,
][]

it('stays small with arrivals: alone, with a header, with every part, and each separate script', () => {
  const size = (...parts: string[]) => gzipSync(scriptIn('small')(['arrivals', ...parts])).length
  const every = ['anchors', 'classes', 'header', 'lists', 'made', 'scripts', 'scroller', 'shrinks']
  const more = (part: string) => size(...every, part) - size(...every)
  const bounds = [size() <= 3000, size('header') <= 3500, size(...every) <= 5500, more('travel') <= 850, more('presses') <= 1000]
  expect([...bounds, more('shuts') <= 400, more('steady') <= 850, more('sticky') <= 300]).toEqual(Array(8).fill(true))
})

it.each(all)('is plain ASCII that fits any page: %s', (_, text) => {
  expect(text).toMatch(/^[\x20-\x7e\n]+$/)
  expect(text).not.toMatch(/<\/script|<!--/i)
  expect(() => new Function(text)).not.toThrow()
})

it('has an empty version of each part with the same names', () => {
  const names = (path: string) =>
    [...readFileSync(new URL(`./parts/${path}`, import.meta.url), 'utf8').matchAll(/^export (?:const|let|function) (\w+)/gm)]
      .map((m) => m[1])
      .sort()
  for (const file of readdirSync(new URL('./parts/none', import.meta.url)))
    expect([file, names(`none/${file}`)]).toEqual([file, names(file)])
})

it('is readable, with a comment before each thing', () => {
  expect(scriptIn('plain')(['arrivals', 'header'])).toMatch(/^\/\*\n \* Way Bell: /)
  expect(scriptIn('plain')(['arrivals', 'header'])).not.toContain('// packages/')
  expect(scriptIn('plain')(['arrivals', 'header']).match(/\/\*\*/g)!.length).toBeGreaterThan(40)
})
