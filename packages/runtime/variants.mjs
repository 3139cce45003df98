/** Builds the script in every form that a page may carry: with the parts that it uses, in small and to be read. */
import { minify } from '@swc/core'
import { readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'vite'
import { link } from './link.mjs'

const at = (path) => new URL(path, import.meta.url).pathname

/** What the script shares with the core comes from the core's source, so that no build order is needed. */
const CORE = { '@waybell/core/rule': at('../core/src/highlight/rule.ts'), '@waybell/core/contract': at('../core/src/contract/index.ts') }

/** One self-contained classic script. */
async function bundle(entry, without) {
  const [{ output }] = await build({
    configFile: false,
    root: at('.'),
    logLevel: 'warn',
    resolve: {
      alias: [
        ...Object.entries(CORE).map(([find, replacement]) => ({ find, replacement })),
        ...without.map((part) => ({ find: new RegExp(`^\\./(parts/)?${part}\\.ts$`), replacement: at(`src/parts/none/${part}.ts`) })),
      ],
    },
    build: {
      write: false,
      minify: false,
      target: 'es2020',
      lib: { entry: at(`src/${entry}.ts`), formats: ['iife'], name: 'wayBell', fileName: () => 'script.js' },
    },
  })
  return output[0].code
}

const BANNER = `/*
 * Way Bell: marks the current item of the page's menus, knows how much the header covers, and makes sure that links arrive.
 * Links, offsets and smooth motion are HTML and CSS and work without it. What it goes by stands in the JSON beside it.
 */
`

/** In Latin letters alone, as it may stand in a page of any encoding. */
const ascii = (text) => text.replace(/[^\x20-\x7e\n\t]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)

// Of whoever keeps the page nobody has our files.
const legible = (code, banner = BANNER) => ascii(banner + code.replace(/^\s*\/\/ packages\/.*\n/gm, '')).replace(/\t/g, '  ')

/** Names that are the script's alone, neither the page's nor those of its settings. */
const PRIVATE = ['hasMoved', 'frames', 'since', 'gap', 'opening', 'shown', 'isTop', 'index', 'bell', 'kind', 'element', 'items']

/** The machine's longer names in short: in the small form nobody reads them. */
const shortened = (code) =>
  code
    .replaceAll('"under way, touched"', '"under!"')
    .replaceAll('"under way"', '"under"')
    .replaceAll('"held, touched"', '"held!"')
    .replaceAll('"asked for none"', '"none"')

async function forms(plain) {
  const { code } = await minify(shortened(plain), {
    compress: { passes: 3, unsafe_arrows: true, ecma: 2020 },
    mangle: { props: { regex: `^(${PRIVATE.join('|')})$` } },
    format: { ascii_only: true, ecma: 2020 },
  })
  return { plain: plain.trim(), small: code.trim() }
}

/**
 * For a live page: edits may call for another script, which ends the one before.
 * @param again the script runs again after each edit; otherwise it reads what changed itself
 */
const inLivePage = (text, again) => `(() => {
  const run = () => {
    document.wayBellEnd?.()
    const ended = new AbortController()
    document.wayBellEnd = () => ended.abort()
    const { signal } = ended
    const unlessEnded = (fn) => (...given) => signal.aborted || fn(...given)
    const addEventListener = (type, fn, options) =>
      window.addEventListener(type, fn, { ...(options === true ? { capture: true } : options), signal })
    const requestAnimationFrame = (fn) => window.requestAnimationFrame(unlessEnded(fn))
    const setTimeout = (fn, ...more) => window.setTimeout(unlessEnded(fn), ...more)
    const ResizeObserver = class extends window.ResizeObserver { constructor(fn) { super(unlessEnded(fn)) } }
    const MutationObserver = class extends window.MutationObserver { constructor(fn) { super(unlessEnded(fn)) } }
    ${again ? "document.addEventListener('waybell', run, { signal })" : ''}
    ;${text}
  }
  run()
})();`

/** Every combination of some names. */
const combinations = (names) => Array.from({ length: 2 ** names.length }, (_, bits) => names.filter((_, i) => bits & (1 << i)))

/** Parts of a script that only marks, as \`src/plain.ts\` has them. */
const PLAIN_PARTS = ['anchors', 'bar', 'classes', 'header', 'lists', 'shifted', 'slides', 'tops']

export async function buildVariants(out) {
  const parts = readdirSync(at('src/parts/none'))
    .map((file) => file.slice(0, -3))
    .sort()
  const handed = {}
  for (const chosen of combinations(parts)) {
    // What has one size or more is a header.
    if (chosen.includes('shrinks') && !chosen.includes('header')) continue
    // Pages that have use for it are rare: they carry every other part too.
    if (chosen.includes('sticky') && parts.some((part) => !['shrinks', 'travel'].includes(part) && !chosen.includes(part))) continue
    const without = parts.filter((part) => !chosen.includes(part))
    const plain = legible(await bundle('main', without))
    handed[['arrivals', ...chosen].join(' ')] = await forms(plain)
  }
  const extras = {}
  for (const name of readdirSync(at('src/extras')).map((file) => file.slice(0, -3)))
    extras[name] = await forms(legible(await bundle(`extras/${name}`, []), ''))
  // A made bar below a header may slide.
  const isPossible = (chosen) => !chosen.includes('bar') || (chosen.includes('header') && chosen.includes('slides'))
  for (const chosen of combinations(PLAIN_PARTS).filter(isPossible))
    handed[chosen.join(' ')] = await forms(await link(at('src/plain.ts'), chosen, CORE))
  const withExtras = (text) => [text, ...Object.values(extras).map(({ plain }) => plain.trim())].join('\n')
  const live = {
    plain: withExtras(inLivePage(await link(at('src/plain.ts'), [...PLAIN_PARTS, 'live'], CORE), true)),
    arrivals: withExtras(inLivePage(legible(await bundle('live', [])), false)),
  }
  writeFileSync(join(out, 'scripts.json'), JSON.stringify({ handed, extras, live }))
}
