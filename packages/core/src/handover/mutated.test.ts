/** Pages that nobody would write: cut off, torn, doubled, with what does not belong there. Seeded, so that a seed that fails fails again. */
import { anInput } from './builder.ts'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { PageError, parsePage, readParsed, stampPage, undoSplices } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { apply, type SitePage } from '../site/index.ts'
import { aSite } from '../site/builder.ts'
import { pageEdits, writePage } from './index.ts'

/** `npm run fuzz` asks for more. */
const PAGES = Number(process.env.WAYBELL_MUTATED ?? 200)

const root = join(__dirname, '../../../..')
const sources = ['packages/core/fixtures/outline', 'e2e/pages', 'demo/ostrey'].flatMap((folder) =>
  readdirSync(join(root, folder))
    .filter((name) => name.endsWith('.html'))
    .map((name) => readFileSync(join(root, folder, name), 'latin1')),
)

/** Numbers from 0 to 1 that are the same for the same seed. */
function numbers(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const strays = (
  '<a href="#x">|</a>|<b>|</b>|<table>|</td>|<p>|</div>|<div>|<section id="|"|>|<|<!--|-->|<svg>|<template>|<form>|<select>|<nav>|</nav>|<head>|<body>' +
  '|</html>|<script>|</script>|<style>|\u0000|\u0007|\r|\xed\xa0\x80|&#0;|&nbsp;|id="a b"|<plaintext>|<h2>|</h2>|<a name=q>|<main>|<frameset>|<math>|<li>' +
  '|<textarea>|<![CDATA[|<?xml|<title>|<button><a id=i>|data-wb="style"|<nav data-wb=menu>'
).split('|')

/** A page with one to four things wrong, a byte to a character. */
function mutated(seed: number): Uint8Array {
  const next = numbers(seed)
  const below = (n: number) => Math.floor(next() * n)
  let page = sources[below(sources.length)]!
  for (let n = 1 + below(4); n > 0; n--) {
    const at = below(page.length)
    const length = Math.floor(next() * next() * 400)
    const tags = [...page.matchAll(/<\/?[a-z][^>]*>/g)]
    const ways: (() => string)[] = [
      () => page.slice(0, at),
      () => page.slice(0, at) + page.slice(at + length),
      () => page.slice(0, at + length) + page.slice(at),
      () => page.slice(0, at) + strays[below(strays.length)]! + page.slice(at),
      () => {
        const tag = tags[below(tags.length)]
        return tag ? page.slice(0, tag.index) + page.slice(tag.index + tag[0].length) : page
      },
      () => page.slice(0, at) + String.fromCharCode(below(256)) + page.slice(at + 1),
    ]
    page = ways[below(ways.length)]!()
  }
  return Buffer.from(page, 'latin1')
}

function setUp(bytes: Uint8Array) {
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  stampPage(bytes, parsed, '<script></script>')
  const page: SitePage = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  apply(aSite(), { type: 'page/add', page, index: 0 })
  const edits = pageEdits(anInput(page, reading))
  return { parsed, ids: page.sections.map((s) => s.id), ...writePage(bytes, parsed, edits) }
}

/** How many elements a link to the ID could come to. */
const owners = ({ parsed }: ReturnType<typeof setUp>, id: string) =>
  new Set(parsed.tree.all.filter((el) => el.attrs.get('id') === id || (el.tag === 'a' && el.attrs.get('name') === id)).map((el) => el.at))
    .size

it(`${PAGES} torn pages are read, set up, handed over, taken back, and handed over again as they are`, () => {
  let handedOver = 0
  for (let seed = 1; seed <= PAGES; seed++) {
    const bytes = mutated(seed)
    const told = (what: string) => `seed ${seed}: ${what}`
    try {
      const first = setUp(bytes)
      expect(told(Buffer.from(undoSplices(first.bytes, first.splices)).toString('latin1'))).toBe(
        told(Buffer.from(bytes).toString('latin1')),
      )
      const again = setUp(first.bytes)
      expect(told(String(again.ids))).toBe(told(String(first.ids)))
      expect(told(Buffer.from(again.bytes).toString('latin1'))).toBe(told(Buffer.from(first.bytes).toString('latin1')))
      for (const id of first.ids) if (owners(first, id) <= 1) expect(told(`${id} ${owners(again, id)}`)).toBe(told(`${id} 1`))
      handedOver++
    } catch (error) {
      if (!(error instanceof PageError)) throw new Error(`seed ${seed}`, { cause: error })
    }
  }
  // Few are torn so that they are no pages any more.
  expect(handedOver).toBeGreaterThan(PAGES * 0.9)
})
