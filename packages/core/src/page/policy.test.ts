import { readPage } from './index.ts'

const policy = (...metas: string[]) =>
  readPage(
    new TextEncoder().encode(
      `<!doctype html>\n${metas.map((m) => `<meta http-equiv="Content-Security-Policy" content="${m}">`).join('\n')}<title>T</title><section id=a><h2>A</h2></section>`,
    ),
  ).policy

// As browsers do: each of these was tried in Chromium, with a script and a style that stand in the page.
it.each([
  [["default-src 'self'"], ['script', 'style']],
  [["default-src 'self'; style-src 'unsafe-inline'"], ['script']],
  [["script-src 'self' 'unsafe-inline'; style-src 'self'"], ['style']],
  [["script-src 'unsafe-inline' 'nonce-abc'"], ['script']],
  [["script-src 'unsafe-inline' 'strict-dynamic'"], ['script']],
  [["script-src-elem 'unsafe-inline'; script-src 'none'"], []],
  [["SCRIPT-SRC 'UNSAFE-INLINE'; script-src 'none'"], []],
  [["img-src 'self'"], []],
  [["default-src 'self' 'unsafe-inline'", "script-src 'self'"], ['script']],
  [['upgrade-insecure-requests'], []],
  [[''], []],
])('%j blocks %j', (metas, blocks) => expect(policy(...metas)?.blocks ?? []).toEqual(blocks))

it('says where', () => expect(policy('img-src *', "default-src 'none'")).toEqual({ blocks: ['script', 'style'], line: 3 }))
it('says nothing without one', () => expect(policy()).toBeNull())
