/* global clearTimeout */
/** `npm run field -- --engine E`: figures of one engine over many sites, and what went wrong where. */
import { existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { openEngine } from './engines.mjs'
import { keepFigures } from '../figures.mjs'
import { serveFolders } from './served.mjs'
import { visitSite } from './visit.mjs'

const here = dirname(fileURLToPath(import.meta.url))
const SIZE = [1280, 800]

/** Browsers at once: a visitor mostly waits. */
const SIDE_BY_SIDE = 3
/** A driver that no longer answers is given up for a site after so long, in ms; none takes a third of it. */
const LONGEST = 420_000
/** While pages are built, both of them are busy. */
const BUILDERS = 2

/**
 * Several sites are visited at once. Where something was not right the site is visited a second time with the machine to itself, and that counts:
 * what a busy machine does is no fault of the page.
 * @param build gives `{ out, state }` of a site, or null
 * @param isWhole of the sites that ship, whose figures are kept in docs/bench.md
 * @returns how many things were wrong, as an exit code
 */
export async function visitAll({ engine, sites, build, again, kept, isWhole }) {
  const elsewhere = join(kept, 'elsewhere')
  mkdirSync(elsewhere, { recursive: true })
  writeFileSync(join(elsewhere, 'index.html'), '<!doctype html><title>Elsewhere</title><p>Another page.</p>')
  const judges = ['visit', 'judge', 'served', 'engines'].map((name) => statSync(join(here, `${name}.mjs`)).mtimeMs).join(' ')
  const known = []
  await sideBySide(BUILDERS, sites, async (site) => {
    const name = site.split('/').at(-1)
    const built = await build(site)
    if (!built) console.log(`${name}: nothing was built`)
    else
      known.push({ name, site, out: built.out, state: `${built.state} ${judges}`, file: join(kept, `${engine}-${name}.json`), tries: null })
  })
  known.sort((a, b) => (a.name < b.name ? -1 : 1))
  for (const one of known) {
    const before = existsSync(one.file) && !again ? JSON.parse(readFileSync(one.file, 'utf8')) : null
    if (before?.state === one.state) one.tries = before.tries
  }
  let version = ''
  const visit = async (lanes, those) =>
    sideBySide(lanes, those, async (one, lane) => {
      const { server, address } = await serveFolders({ [one.name]: one.out, [`${one.name}~before`]: one.site, elsewhere })
      try {
        lane.browser ??= await openEngine(engine)
        version = lane.browser.version
        one.tries = await within(LONGEST, visitSite(await lane.browser.tab(...SIZE), address, one.name))
        writeFileSync(one.file, JSON.stringify({ state: one.state, tries: one.tries }, null, 1))
      } catch (error) {
        console.log(`${one.name}: could not be visited: ${String(error?.message ?? error).split('\n')[0]}`)
        lane.browser?.close().catch(() => {})
        lane.browser = undefined
      } finally {
        server.closeAllConnections()
        server.close()
      }
    })
  const fresh = known.filter((one) => !one.tries)
  await visit(SIDE_BY_SIDE, fresh)
  const second = fresh.filter((one) => !one.tries || faultsOf(one.tries).length)
  if (second.length) console.log(`a second time, alone: ${second.map((one) => one.name).join(', ')}`)
  await visit(1, second)
  for (const { name, tries } of known) {
    if (!tries) continue
    const faults = faultsOf(tries)
    console.log(`${name}: ${tries.length} tried, ${faults.length} not right`)
    for (const t of faults.slice(0, 12))
      console.log(`    ${t.kind}, ${t.what}: ${[t.wrong, t.lit, t.moved && `moved by itself ${t.moved}`].filter(Boolean).join('; ')}`)
  }
  const visited = known.filter((one) => one.tries)
  const all = visited.flatMap((one) => one.tries)
  const table = figures(all)
  console.log(`\n${engine} ${version}: ${visited.length} of ${sites.length} sites\n\n${table}`)
  if (isWhole)
    keepFigures(
      `## Visited in ${engine[0].toUpperCase()}${engine.slice(1)}`,
      `\`npm run field -- --engine ${engine}\`, ${new Date().toISOString().slice(0, 10)}, version ${version}: ${visited.length} sites as they are handed over, 1280x800.\n\n${table}`,
    )
  return visited.length < sites.length || faultsOf(all).length ? 1 : 0
}

function within(ms, work) {
  let timer
  const over = new Promise((_, fail) => (timer = setTimeout(() => fail(new Error(`no answer in ${ms / 1000} s`)), ms)))
  return Promise.race([work, over]).finally(() => clearTimeout(timer))
}

const faultsOf = (tries) => tries.filter((t) => t.wrong || t.lit || t.moved)

/** @param work gets one of them, and what its lane keeps: a browser, closed at the end */
async function sideBySide(lanes, all, work) {
  const open = [...all]
  const run = async () => {
    const lane = { browser: undefined }
    for (let one = open.shift(); one; one = open.shift()) await work(one, lane)
    await lane.browser?.close()
  }
  await Promise.all(Array.from({ length: lanes }, run))
}

/** A table in Markdown, as it stands in docs/bench.md. */
function figures(all) {
  const kinds = [...new Set(all.map((t) => t.kind))]
  const row = (name, tries) => {
    const count = (is) => tries.filter(is).length
    const longest = Math.max(0, ...tries.filter((t) => !t.wrong).map((t) => t.ms))
    return `| ${name} | ${tries.length} | ${count((t) => !t.wrong)} | ${count((t) => !t.lit)} | ${count((t) => t.moved)} | ${(longest / 1000).toFixed(2)} s |`
  }
  return `| | tried | landed | lit | moved by itself | longest until at rest |
| --- | --- | --- | --- | --- | --- |
${[
  ...kinds.map((kind) =>
    row(
      kind,
      all.filter((t) => t.kind === kind),
    ),
  ),
  row('all', all),
].join('\n')}`
}
