/** Character sets: pages are read as the browser reads them. */
import { expect, test } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { freshFolder, waybellBuilt } from './support/cli.ts'

const single =
  'ibm866 iso-8859-2 iso-8859-3 iso-8859-4 iso-8859-5 iso-8859-6 iso-8859-7 iso-8859-8 iso-8859-8-i iso-8859-10 iso-8859-13 iso-8859-14 iso-8859-15 iso-8859-16 koi8-r koi8-u macintosh windows-874 windows-1250 windows-1251 windows-1252 windows-1253 windows-1254 windows-1255 windows-1256 windows-1257 windows-1258 x-mac-cyrillic x-user-defined'.split(
    ' ',
  )
const double = 'gbk gb18030 big5 euc-jp shift_jis euc-kr iso-2022-jp'.split(' ')

/** Headings with bytes; each starts with a letter, so that none is empty. */
const page = (runs: number[][], head: string) =>
  Buffer.concat([
    Buffer.from(`<!doctype html>${head}`, 'latin1'),
    ...runs.map((run) => Buffer.concat([Buffer.from('<section><h2>x'), Buffer.from(run), Buffer.from('</h2></section>\n')])),
  ])
const range = (from: number, to: number, step = 1) => Array.from({ length: Math.ceil((to - from) / step) }, (_, i) => from + i * step)
const named = (label: string) => `<meta charset="${label}">`

const pages: [string, Buffer][] = [
  ...single.map((label): [string, Buffer] => [
    label,
    page([range(0x80, 0xa0), range(0xa0, 0xc0), range(0xc0, 0xe0), range(0xe0, 0x100)], named(label)),
  ]),
  // A sample of rows, without big5's 0x88, where Chromium lacks four characters of the standard; the trail bytes cover each table, with
  // gaps and broken pairs.
  ...double.map((label): [string, Buffer] => [
    label,
    page(
      range(0x82, 0xff, 7).map((lead) => range(0x40, 0xff, 17).flatMap((trail) => [lead, trail, 0x20])),
      named(label),
    ),
  ]),
  [
    'iso-2022-jp in use',
    page(
      [
        [0x1b, 0x24, 0x42, 0x46, 0x7c, 0x4b, 0x5c, 0x1b, 0x28, 0x42],
        [0x1b, 0x28, 0x49, 0x31, 0x32, 0x1b, 0x28, 0x42],
      ],
      named('iso-2022-jp'),
    ),
  ],
  [
    'gb18030 in four bytes',
    page(
      [
        [0x81, 0x30, 0x81, 0x30, 0x84, 0x31, 0xa4, 0x37],
        [0x90, 0x30, 0x81, 0x30],
      ],
      named('gb18030'),
    ),
  ],
  ['no mark and no name', page([[0x93, 0xe9, 0x94]], '')],
  ['utf-8 with a mark', Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), page([[0xc3, 0xa9]], named('koi8-r'))])],
  ['named by http-equiv', page([[0xe0, 0xe1]], '<meta content="text/html;charset=windows-1251" http-equiv="Content-Type">')],
  ['named twice', page([[0xe0, 0xe1]], '<meta name=a content="x; charset=big5"><meta charset=koi8-r><meta charset=big5>')],
  ['named in a comment', page([[0xe0, 0xe1]], '<!-- <meta charset=big5> > --><meta charset=koi8-r>')],
  ['named late in the head', page([[0xe0, 0xe1]], `<!-- ${'licence '.repeat(200)} --><title>t</title><meta charset=koi8-r>`)],
]

test('every character set of the standard is read as browsers do', async ({ page: tab }) => {
  const folder = freshFolder()
  let bytes: Buffer = Buffer.alloc(0)
  const server = createServer((_, response) => response.setHeader('Content-Type', 'text/html').end(bytes))
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`
  const expected: Record<string, string[]> = {}
  const found: Record<string, string[]> = {}
  for (const [name, content] of pages) {
    bytes = content
    await tab.goto(address)
    expected[name] = await tab.evaluate(() =>
      [...document.querySelectorAll('h2')].map((h) =>
        h
          .textContent!.replace(/[\s\u00a0]+/g, ' ')
          .trim()
          .slice(0, 80)
          .trimEnd(),
      ),
    )
  }
  server.close()
  // Four at a time, each a process.
  for (let i = 0; i < pages.length; i += 4)
    await Promise.all(
      pages.slice(i, i + 4).map(async ([name, content], n) => {
        const file = join(folder, `${i + n}.html`)
        writeFileSync(file, content)
        const { stdout } = await waybellBuilt('check', file, '--format', 'json')
        found[name] = (JSON.parse(stdout) as { sections: { title: string }[] }).sections.map((s) => s.title)
      }),
    )
  for (const [name] of pages) expect(found[name], name).toEqual(expected[name])
})
