/** The script of a page that needs nothing but marks, as it is handed over. */
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import js from '@eslint/js'
import { Linter } from 'eslint'
import { scriptIn, scripts } from './text.ts'

const plain = Object.entries(scripts('plain')).filter(([parts]) => !parts.startsWith('arrivals'))
const linesOf = (...parts: string[]) => scriptIn('plain')(parts).trim().split('\n').length
const packed = (...parts: string[]) => gzipSync(scriptIn('small')(parts)).length

it('has at most 150 lines and 1.25 kB with a header, and 240 lines and 1.9 kB with every part', () => {
  expect([linesOf('header') <= 150, packed('header') <= 1250]).toEqual([true, true])
  const every = ['anchors', 'bar', 'classes', 'header', 'lists', 'shifted', 'slides', 'tops']
  expect([linesOf(...every) <= 240, packed(...every) <= 1900]).toEqual([true, true])
})

it.each(plain)('has no finding of ESLint’s recommended rules: %s', (_, text) => {
  const names =
    'document location performance scrollY innerHeight addEventListener getComputedStyle setTimeout clearTimeout URL ResizeObserver'
  const globals = Object.fromEntries(names.split(' ').map((name) => [name, 'readonly'] as const))
  const found = new Linter().verify(text, [js.configs.recommended, { languageOptions: { sourceType: 'script', globals } }])
  expect(found.map((f) => `${f.line}: ${f.message}`)).toEqual([])
})

it('comes with the comments of the source, without its types and conditions', () => {
  const text = scriptIn('plain')(['header'])
  expect(text).toContain('// After a reload, the page is where the visitor left it.')
  expect(text).not.toMatch(/#if|#end|import |export |: string|import\(/)
  expect(text).toContain("all('[data-wb-menu]')")
})

it('has the functions that docs/script.md walks through, and no others', () => {
  const text = scriptIn('plain')(['anchors', 'bar', 'classes', 'header', 'lists', 'shifted', 'slides', 'tops'])
  const has = [...text.matchAll(/^ {2}(?:function (\w+)|const (\w+) = \(.*=>)/gm)].map((m) => m[1] ?? m[2])
  const docs = readFileSync(new URL('../../../docs/script.md', import.meta.url), 'utf8')
  const [, walk = ''] = /\n## Marks alone\n([^]*?)\n## /.exec(docs) ?? []
  const told = [...walk.matchAll(/^\| `(\w+)` \|/gm)].map((m) => m[1])
  expect(told).toEqual(has)
})
