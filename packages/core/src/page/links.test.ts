import fc from 'fast-check'
import { readAddress, relativePath, resolvePath } from './links.ts'

it.each([
  ['index.html', 'more.html', 'more.html'],
  ['index.html', './sub/more.html', 'sub/more.html'],
  ['sub/more.html', '../index.html', 'index.html'],
  ['sub/more.html', 'other.html', 'sub/other.html'],
  ['sub/deep/x.html', '../../css/a.css', 'css/a.css'],
  ['sub/more.html', '/img/p.png', 'img/p.png'],
  ['sub/more.html', './/x//y.html', 'sub/x/y.html'],
  ['index.html', '../outside.html', null],
  ['sub/more.html', '../../outside.html', null],
])('in %s the path %s means %s', (file, path, expected) => expect(resolvePath(file, path)).toBe(expected))

it.each([
  ['#a', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  [' #a\n', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  ['index.html#a', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  ['./#a', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  ['/#a', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  ['/index.html#a', 'index.html', { kind: 'here', fragment: 'a', path: null }],
  ['../sub/#a', 'sub/index.html', { kind: 'here', fragment: 'a', path: null }],
  ['/#a', 'sub/index.html', { kind: 'other-page', fragment: 'a', path: '/' }],
  ['./#a', 'more.html', { kind: 'other-page', fragment: 'a', path: './' }],
  ['more.html', 'sub/more.html', { kind: 'here', fragment: '', path: null }],
  ['../sub/more.html#x', 'sub/more.html', { kind: 'here', fragment: 'x', path: null }],
  ['more.html?q=1#x', 'index.html', { kind: 'other-page', fragment: 'x', path: 'more.html' }],
  ['/more%20pages/a.html#x', 'index.html', { kind: 'other-page', fragment: 'x', path: '/more pages/a.html' }],
  ['//host.example/a#x', 'index.html', { kind: 'outside', fragment: null, path: null }],
  ['mailto:a@b.example', 'index.html', { kind: 'outside', fragment: null, path: null }],
  ['jAvAsCrIpT:void(0)', 'index.html', { kind: 'script', fragment: null, path: null }],
  ['java\nscript:x()', 'index.html', { kind: 'script', fragment: null, path: null }],
  ['', 'index.html', { kind: 'empty', fragment: null, path: null }],
])('the link %j in %s is %j', (href, file, expected) => expect(readAddress(href, file, null)).toEqual(expected))

it('leaves the page by a bare hash with a base', () => {
  expect(readAddress('#a', 'index.html', 'https://elsewhere.example/').kind).toBe('outside')
  expect(readAddress('#a', 'index.html', 'folder/').kind).toBe('other-page')
})

it.each([
  ['index.html', 'travel.html', 'travel.html'],
  ['index.html', 'shop/index.html', 'shop/index.html'],
  ['shop/index.html', 'index.html', '../index.html'],
  ['a/b/c.html', 'a/d/e.html', '../d/e.html'],
  ['a/b.html', 'a/c.html', 'c.html'],
  ['index.html', 'ein weg#1?.html', 'ein%20weg%231%3F.html'],
  ['index.html', 'a:b.html', './a:b.html'],
])('from %s to %s leads %s', (from, to, way) => expect(relativePath(from, to)).toBe(way))

it('leads from any file to any other, and is no other address', () => {
  const file = fc.array(fc.stringMatching(/^[a-z:ä ]{1,3}$/), { minLength: 1, maxLength: 4 }).map((steps) => steps.join('/'))
  fc.assert(
    fc.property(file, file, (from, to) => {
      const way = relativePath(from, to)
      expect(resolvePath(from, decodeURI(way))).toBe(to)
      expect(new URL(way, `https://x.example/${encodeURI(from)}`).href).toBe(`https://x.example/${encodeURI(to)}`)
    }),
  )
})
