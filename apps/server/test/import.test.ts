import { PageError } from '@waybell/core'
import { hostOf, isForeign } from '../src/common/hosts.ts'
import { readConfig } from '../src/common/config.ts'
import { cleanPath } from '../src/sites/content.ts'
import { readImport } from '../src/sites/import.ts'

const file = (name: string, text = '<p>x</p>') => ({ name, bytes: new TextEncoder().encode(text) })

describe('chooses the page among files', () => {
  it.each([
    [['b.html', 'index.html', 'a.html'], 'index.html'],
    [['site/about.html', 'site/index.htm'], 'index.htm'],
    [['deep/er/index.html', 'start.html'], 'start.html'],
    [['page'], 'page'],
  ])('of %j it is %s', (names, expected) => expect(readImport(names.map((n) => file(n))).pages[0]!.file).toBe(expected))

  it('makes a page of every HTML file, and assets of the rest', () => {
    const { pages, assets } = readImport([
      file('site/b/more.html'),
      file('site/index.html'),
      file('site/about.htm'),
      file('site/part.html', 'no tag'),
      file('site/a.css', 'a{}'),
    ])
    expect(pages.map((p) => p.file)).toEqual(['index.html', 'about.htm', 'b/more.html'])
    expect([...assets.keys()]).toEqual(['part.html', 'a.css'])
  })
  it('makes a page of an outline', () => {
    const { pages } = readImport([file('plan.md', '# Mill\n## Work\nWe grind.\n## Visit\nCome.')])
    expect(pages[0]!.reading.candidates.filter((c) => c.offered).map((c) => c.title)).toEqual(['Mill', 'Work', 'Visit'])
  })

  it('reports when there is none', () => expect(() => readImport([file('a.css', 'a{}'), file('b.png')])).toThrow(PageError))

  it('takes paths from the page’s folder, and drops those outside', () => {
    const { assets } = readImport([
      file('site/index.html'),
      file('site/css/a.css'),
      file('other/b.css'),
      file('site/../../etc/x'),
      file('site\\img\\c.png'),
    ])
    expect([...assets.keys()]).toEqual(['css/a.css', 'other/b.css', 'img/c.png'])
  })

  it('places files without folders where page and style look for them', () => {
    const { assets } = readImport([
      file('index.html', '<link rel=stylesheet href="css/a.css"><p>x'),
      file('a.css', 'b{background:url("../img/p.png")}'),
      file('p.png'),
    ])
    expect([...assets.keys()].sort()).toEqual(['css/a.css', 'img/p.png'])
  })

  it('doesn’t guess between two files with the same name', () => {
    const { assets } = readImport([file('index.html', '<img src="img/p.png"><p>x'), file('one/p.png'), file('two/p.png')])
    expect([...assets.keys()].sort()).toEqual(['one/p.png', 'two/p.png'])
  })
})

it.each([
  ['a/b.css', 'a/b.css'],
  ['/a//./b', 'a/b'],
  ['a/../b', null],
  ['..\\b', null],
  ['', null],
])('the path “%s” is stored as %s', (path, clean) => expect(cleanPath(path)).toBe(clean))

it.each([
  ['127.0.0.1:7420', { kind: 'application' }],
  ['abcd1234.localhost:7420', { kind: 'live', site: 'abcd1234', scripts: true }],
  ['abcd1234--still.localhost', { kind: 'live', site: 'abcd1234', scripts: false }],
  ['localhost:7420', { kind: 'none' }],
  ['evil.example', { kind: 'none' }],
  ['a.b.localhost', { kind: 'none' }],
  ['127.0.0.1.evil.example', { kind: 'none' }],
])('tells the host %s apart', (host, expected) => expect(hostOf({ headers: { host } })).toEqual(expected))

it.each([
  [{ host: '127.0.0.1:1', origin: 'http://127.0.0.1:1' }, false],
  [{ host: '127.0.0.1:1', origin: 'http://127.0.0.1:2' }, true],
  [{ host: '127.0.0.1:1', origin: 'null' }, true],
  [{ host: '127.0.0.1:1', 'sec-fetch-site': 'cross-site' }, true],
  [{ host: '127.0.0.1:1', 'sec-fetch-site': 'same-origin' }, false],
  [{ host: '127.0.0.1:1' }, false],
])('a request with %j comes from elsewhere: %s', (headers, foreign) => expect(isForeign({ headers })).toBe(foreign))

it('reports a bad port', () =>
  expect(() => readConfig({ WAYBELL_PORT: 'high' })).toThrow('WAYBELL_PORT is “high”; give a number from 0 to 65535'))
