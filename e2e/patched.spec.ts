/**
 * The live page is patched, never reloaded; after any series of commands it equals a fresh load of the handover. Commands are generated
 * from the document with a seed, so that failures can be repeated.
 */
import { expect, type Page } from '@playwright/test'
import { join } from 'node:path'
import { writeFileSync } from 'node:fs'
import { freshFolder, repository } from './support/cli.ts'
import { measured, setUp, stored } from './support/server.ts'
import { bringIn } from './support/sheet.ts'
import { test } from './support/test.ts'

interface Item {
  key: string
  label: string
  target: { kind: string; section?: string }
}
interface Doc {
  pages: {
    key: string
    sections: { key: string; at: number; id: string; title: string; former: string[]; depth: number; point: object | null }[]
    menus: { key: string; items: Item[] }[]
    header: { at: number } | null
  }[]
}

/** Pseudo-random numbers from 0 to 1, by seed. */
function random(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}

/** A command that may fit the document or be refused. */
function generate({ pages: [page] }: Doc, next: () => number, n: number): object {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!
  const section = pick(page!.sections)
  const menu = pick(page!.menus.filter((m) => m.items.length)) ?? {
    key: 'none',
    items: [{ key: 'none', label: '', target: { kind: 'top' } }],
  }
  const item = pick(menu.items)
  const at = { page: page!.key }
  const inMenu = { ...at, menu: menu.key }
  const target = () =>
    pick([
      { kind: 'section', section: pick(page!.sections).key },
      { kind: 'top' },
      { kind: 'section', section: section.key },
      { kind: 'outside', address: `https://x.example/?a&${n}`, newTab: next() < 0.6 },
    ])
  return pick([
    () => ({ type: 'section/id', ...at, section: section.key, id: `id-${n}`, former: [...section.former, section.id].slice(-3) }),
    () => ({ type: 'section/id', ...at, section: section.key, id: section.id, former: section.former.slice(1) }),
    () => ({ type: 'section/to-top', ...at, section: section.key, toTop: next() < 0.5 }),
    () => ({
      type: 'section/add',
      ...at,
      section: {
        ...section,
        key: `pt${n}`,
        id: `${n}`,
        point: { shift: Math.floor(next() * 90) },
        sourceId: null,
        former: [],
        toTop: false,
        heading: null,
      },
    }),
    () => ({ type: 'section/drop', ...at, section: section.key }),
    () => ({ type: 'item/move', ...inMenu, item: item.key, index: Math.floor(next() * menu.items.length) }),
    () => ({ type: 'item/move', ...inMenu, item: item.key, index: 0 }),
    () => ({ type: 'item/label', ...inMenu, item: item.key, label: pick(['Short', 'A & <b>', 'Ünder “quotes”', `Item ${n}`]) }),
    () => ({ type: 'item/target', ...inMenu, item: item.key, target: target() }),
    () => ({ type: 'item/drop', ...inMenu, item: item.key }),
    () => ({
      type: 'item/add',
      ...inMenu,
      item: { key: `new${n}`, label: `New ${n}`, target: target(), links: [] },
      index: Math.floor(next() * 9),
    }),
    () => ({
      type: 'header/choose',
      ...at,
      header: page!.header && { at: page!.header.at, keep: pick(['sticky', 'fixed', null]), backing: null },
    }),
    () => ({
      type: 'link/target',
      ...at,
      at: section.at,
      target: pick([target(), target(), null]),
      made: pick([
        { of: 'element', label: 'All of it' },
        { of: 'words', label: pick(['the', 'a', 'Words of', 'and']) },
      ]),
    }),
    () => ({ type: 'travel/breathing', ...at, breathing: Math.floor(next() * 60) }),
    () => ({ type: 'travel/smooth', ...at, smooth: next() < 0.5 }),
  ])()
}

/** The difference between the patched document and a fresh load; null for none. */
async function difference(page: Page, address: string): Promise<string | null> {
  const html = await (await page.request.post(`${address}/handover/page`)).text()
  const frame = page.frames().find((f) => f.url().includes('--still.localhost'))!
  return frame.evaluate((text) => {
    const fresh = new DOMParser().parseFromString(text, 'text/html')
    // Attribute order and split text nodes don't matter.
    const [own, now] = [fresh, document].map((d) => {
      const copy = d.documentElement.cloneNode(true) as Element
      copy.normalize()
      // The live page's script has all parts, a handover only those the page needs.
      for (const script of copy.querySelectorAll('script[data-wb="script"]')) script.textContent = ''
      for (const el of [copy, ...copy.querySelectorAll('*')]) {
        const attributes = [...el.attributes].sort((x, y) => (x.name < y.name ? -1 : 1))
        for (const { name } of attributes) el.removeAttribute(name)
        for (const attribute of attributes) el.setAttributeNode(attribute)
      }
      return copy
    })
    if (own!.isEqualNode(now!)) return null
    const [a, b] = [own!.outerHTML, now!.outerHTML]
    let i = 0
    while (i < a.length && a[i] === b[i]) i++
    return i >= a.length && a.length === b.length ? null : `${a.slice(i - 120, i + 160)} ≠ ${b.slice(i - 120, i + 160)}`
  }, html)
}

const a = (n: string) => `<a href="#${n}">${n}</a>`
const nested = `<!doctype html><title>Nested</title><header><a href="https://x.example/">Home</a><nav class="wide"><ul> <li>${a('one')}</li> <li class="x">${a('two')}<ul> <li>${a('three')}</li> <li><b>${a('four')}</b></li> </ul></li> <li><a href="https://x.example/">Away</a></li> <li>${a('five')}</li> </ul></nav><nav class="narrow">${['one', 'two', 'three', 'four', 'five'].map(a).join(' | ')}</nav></header><main>${['one', 'two', 'three', 'four', 'five'].map((n) => `<section id="${n}"><h2>${n}</h2><p style="height:500px">Words of ${n}.</p></section>`).join('')}</main>`

test.describe('patching', () => {
  const pages: [string, () => string][] = [
    [
      'a nested menu in two elements',
      () => {
        const file = join(freshFolder(), 'nested.html')
        writeFileSync(file, nested)
        return file
      },
    ],
    ['a made menu', () => join(repository, 'e2e/pages/plain-divs.html')],
    ['the demo', () => join(repository, 'demo/ostrey/index.html')],
  ]
  for (const [seed, [name, file]] of pages.entries())
    test(`of ${name} leaves what a fresh load of the handover is, after any commands`, async ({ page, server }) => {
      await bringIn(page, server, file())
      await page.getByLabel('Page’s own scripts').uncheck()
      await measured(page)
      await setUp(page)
      await measured(page)
      const [, site, key] = /site\/([^/]+)\/([^/]+)/.exec(page.url())!
      const api = `${server.address}/api/sites/${site}`
      const next = random(seed + 11)
      const taken: object[] = []
      for (let n = 0; taken.length < 40 && n < 200; n++) {
        const { document, version, stacks } = (await (await page.request.get(api)).json()) as {
          document: Doc
          version: number
          stacks: { undo: { version: number; inverse: object }[] }
        }
        const last = stacks.undo.at(-1)
        const isUndo = next() < 0.12 && last !== undefined && taken.length > 3
        const command = isUndo ? last.inverse : generate(document, next, n)
        const body = { idempotencyKey: `generated-${seed}-${n}`, baseVersion: version, command, undoes: isUndo ? last.version : null }
        const answer = await page.request.post(`${api}/changes`, { data: body })
        if (!answer.ok()) continue
        taken.push(command)
        if (taken.length % 4) continue
        await stored(page)
        // Until the tab has measured and patched.
        await expect.poll(() => difference(page, `${api}/pages/${key}`), { message: JSON.stringify(taken.slice(-4)) }).toBeNull()
      }
      expect(taken.length).toBe(40)
    })
})
