import { assetPath, followAssets, type Asset } from './index.ts'

const asset = (path: string): Asset => ({ url: path, path, line: 1, column: 1 })

it.each([
  ['a.png', 'a.png'],
  ['./a%20b.png?v=2#x', 'a b.png'],
  ['/img/a.png', '/img/a.png'],
  ['../up.css', '../up.css'],
  ['https://x.example/a.png', null],
  ['//x.example/a.png', null],
  ['data:image/png;base64,xx', null],
  ['#id', null],
  ['', null],
  ['bad%zz.png', 'bad%zz.png'],
])('the path of %s is %s', (url, path) => expect(assetPath(url, 'index.html')).toBe(path))

describe('following files', () => {
  const files: Record<string, string> = {
    'css/a.css':
      '@import "b.css"; /* url(no.png) */ a { background: url( "../img/x.png" ) } b { background: url(data:,y) } @font-face { src: url(f.woff2#iefix) format("x") }',
    'css/b.css': "@import url('a.css'); i { background: url(/root.png) }",
    'img/x.png': '',
    'app.js': 'import x from "./lib/y.js"; import("./z.js"); import "bare"',
    'lib/y.js': 'export * from "../w.js"',
  }
  const follow = (...paths: string[]) => {
    const { found, missing } = followAssets(paths.map(asset), (path) => (path in files ? { key: path, text: files[path]! } : null))
    return { found: [...found].sort(), missing: [...missing].sort() }
  }
  it('follows styles that load each other, once', () =>
    expect(follow('css/a.css')).toEqual({ found: ['css/a.css', 'css/b.css', 'img/x.png'], missing: ['/root.png', 'css/f.woff2'] }))
  it('follows modules, and ignores bare names', () =>
    expect(follow('app.js')).toEqual({ found: ['app.js', 'lib/y.js'], missing: ['w.js', 'z.js'] }))
})
