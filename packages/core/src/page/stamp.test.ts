import { parsePage, stampPage, undoSplices, splice, type ParsedPage } from './index.ts'

const utf8 = (text: string) => new TextEncoder().encode(text)
const stamp = (bytes: Uint8Array, head = '<script src="/a.js"></script>') => stampPage(bytes, parsePage(bytes), head)
const stampText = (text: string) => new TextDecoder().decode(stamp(utf8(text)))
const stamps = (page: ParsedPage) => page.tree.all.flatMap((el) => el.attrs.get('data-wb-at') ?? [])

describe('a stamped page', () => {
  it('carries each element’s source position', () => {
    const source =
      '<!doctype html><html><head><title>T</title></head><body class="b">\n<section id=a><h2>A</h2><a href="#a">x</a><em>no</em></section></body></html>'
    const again = parsePage(utf8(stampText(source)))
    expect(stamps(again).map((at) => source.slice(Number(at), Number(at) + 4))).toEqual(['<bod', '<sec', '<h2>', '<a h'])
  })

  it('removes link hints that would open connections before the policy', () => {
    const link = (rel: string, href: string) => `<link rel="${rel}" href="${href}">`
    const text = stampText(
      `<head>${link('dns-prefetch', '//a.example')}${link('x PreConnect', 'https://a.example')}${link('prefetch', 'next.html')}${link('stylesheet', 'https://a.example/a.css')}`,
    )
    expect([...text.matchAll(/ (data-wb-)?rel="([^"]*)"/g)].map((m) => [m[2], !!m[1]])).toEqual([
      ['dns-prefetch', true],
      ['x PreConnect', true],
      ['prefetch', false],
      ['stylesheet', false],
    ])
  })

  it('puts its stamp before an attribute of that name in the page', () => {
    const source = '<body><p>One <em data-wb-at="7">two</em> <svg data-wb-at="8"></svg></p></body>'
    expect(stamps(parsePage(utf8(stampText(source))))).toEqual(['0', '6', '13', '41'])
  })

  it('starts its head with the given markup, whatever the page starts with', () => {
    for (const source of [
      '<p>only text</p>',
      '<!-- c --><!doctype html><p>x',
      '<html><p>x',
      '<head><title>t</title></head><p>x',
      '<!doctype html><title>t</title><p>x',
    ]) {
      const { tree } = parsePage(utf8(stampText(source)))
      expect(tree.head!.children[0]!.attrs.get('src')).toBe('/a.js')
      expect(tree.body!.children.map((c) => c.tag)).toEqual(['p'])
    }
  })

  it('leaves out an earlier handover’s pieces', () => {
    const text = stampText(
      '<head><style data-wb="style">a{--wb-header:0}</style><script data-wb="script">data-wb --wb-header</script></head><body><nav data-wb="menu" data-wb-menu aria-label="Sections"><a href="#a">A</a></nav><section id=a>words</section>',
    )
    expect(text).not.toContain('data-wb="')
    expect(text).toContain('<section data-wb-at=')
  })

  it('can’t navigate itself or a frame', () => {
    const text = stampText(
      '<meta http-equiv="Refresh" content="0;url=http://x.example/"><iframe src="http://x.example/"></iframe><iframe src="own.html"></iframe><object data=//x.example></object><iframe title="src=1" SRC=\'https://x.example\'></iframe><p>x',
    )
    expect(text).toContain('<meta data-wb-http-equiv="Refresh"')
    expect(text).toContain('data-wb-src="http://x.example/"')
    expect(text).toMatch(/ src="own.html"/)
    expect(text).toContain('data-wb-data=//x.example')
    expect(text).toContain("data-wb-SRC='https://x.example'")
  })

  it('keeps every other byte, in any character set', () => {
    for (const bytes of [
      Uint8Array.from([0xff, 0xfe, ...[...'<section><h2>Ü</h2></section>'].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])]),
      Uint8Array.from('<meta charset=shift_jis><p>\x81</p><section>\x82\xa0</section>', (c) => c.charCodeAt(0)),
      Uint8Array.from('<meta charset=windows-1252><section>caf\xe9 \x80</section>', (c) => c.charCodeAt(0)),
    ]) {
      const stamped = stamp(bytes, '')
      const wide = bytes[0] === 0xff
      const text = new TextDecoder(wide ? 'utf-16le' : 'latin1').decode(stamped)
      const plain = text.replace(/ data-wb-at="\d+"/g, '')
      expect(plain).toBe(new TextDecoder(wide ? 'utf-16le' : 'latin1').decode(bytes))
    }
  })
})

describe('splices', () => {
  const bytes = utf8('0123456789')
  const one = { offset: 2, removed: utf8('23'), inserted: utf8('ab') }
  const two = { offset: 4, removed: utf8(''), inserted: utf8('XYZ') }
  it('are applied in order and undone', () => {
    const changed = splice(bytes, [one, two])
    expect(new TextDecoder().decode(changed)).toBe('01abXYZ456789')
    expect(undoSplices(changed, [one, two])).toEqual(bytes)
  })
  it('must not overlap, and say where they do', () =>
    expect(() => splice(bytes, [one, { ...two, offset: 3 }])).toThrow('splice at byte 3 overlaps the one that ends at byte 4'))
})
