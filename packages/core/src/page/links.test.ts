import { readAddress, resolvePath } from './links.ts'

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

it('leaves the page by a bare hash where a base says so', () => {
  expect(readAddress('#a', 'index.html', 'https://elsewhere.example/').kind).toBe('outside')
  expect(readAddress('#a', 'index.html', 'folder/').kind).toBe('other-page')
})
