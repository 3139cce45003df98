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

/**
 * @param build gives `{ out, state }` of a site, or null
 * @param isWhole of the sites that ship, whose figures are kept in docs/bench.md
 * @returns how many things were wrong, as an exit code
 */
export async function visitAll({ engine, sites, build, again, kept, isWhole }) {
  const elsewhere = join(kept, 'elsewhere')
  mkdirSync(elsewhere, { recursive: true })
  writeFileSync(join(elsewhere, 'index.html'), '<!doctype html><title>Elsewhere</title><p>Another page.</p>')
  const judges = ['visit', 'judge', 'served', 'engines'].map((name) => statSync(join(here, `${name}.mjs`)).mtimeMs).join(' ')
  let browser = null
  const all = []
  for (const site of sites) {
    const name = site.split('/').at(-1)
    const built = build(site)
    if (!built) {
      console.log(`${name}: nothing was built`)
      continue
    }
    const file = join(kept, `${engine}-${name}.json`)
    const state = `${built.state} ${judges}`
    const before = existsSync(file) && !again ? JSON.parse(readFileSync(file, 'utf8')) : null
    let tries = before?.state === state ? before.tries : null
    if (!tries) {
      browser ??= await openEngine(engine)
      const { server, address } = await serveFolders({ [name]: built.out, [`${name}~before`]: site, elsewhere })
      try {
        tries = await visitSite(await browser.tab(...SIZE), address, name)
        writeFileSync(file, JSON.stringify({ state, tries }, null, 1))
      } catch (error) {
        console.log(`${name}: could not be visited: ${String(error?.message ?? error).split('\n')[0]}`)
        await browser.close().catch(() => {})
        browser = null
        continue
      } finally {
        server.closeAllConnections()
        server.close()
      }
    }
    all.push(...tries)
    const faults = tries.filter((t) => t.wrong || t.lit || t.moved)
    console.log(`${name}: ${tries.length} tried, ${faults.length} not right`)
    for (const t of faults.slice(0, 12))
      console.log(`    ${t.kind}, ${t.what}: ${[t.wrong, t.lit, t.moved && `moved by itself ${t.moved}`].filter(Boolean).join('; ')}`)
  }
  const version = browser?.version ?? ''
  await browser?.close()
  const table = figures(all)
  console.log(`\n${engine} ${version}\n\n${table}`)
  if (isWhole)
    keepFigures(
      `## Visited in ${engine[0].toUpperCase()}${engine.slice(1)}`,
      `\`npm run field -- --engine ${engine}\`, ${new Date().toISOString().slice(0, 10)}, version ${version}: ${sites.length} sites as they are handed over, 1280x800.\n\n${table}`,
    )
  return all.some((t) => t.wrong || t.lit || t.moved) ? 1 : 0
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
