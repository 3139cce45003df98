/**
 * `node scripts/generated.mjs --from N --count N [--views N]`: makes pages from seeds, builds them, and walks them like a visitor, in Chromium. Each
 * link has to stop and light as the build reported, or to be told. Prints a line per page; exits with 1 if a page is wrong.
 */
import { chromium } from '@playwright/test'
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'
import { root } from './ensure.mjs'
import { pageOf, random } from './generated/pages.mjs'
import { walk } from './generated/walk.mjs'

const { values } = parseArgs({ options: { from: { type: 'string' }, count: { type: 'string' }, views: { type: 'string', default: '2' } } })
const [from, count, views] = [values.from, values.count, values.views].map(Number)
const executablePath = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium-headless-shell'
/** Pages at once: walking is mostly waiting. */
const AT_ONCE = 2

const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
const folder = mkdtempSync(join(tmpdir(), 'waybell-generated-'))
const seeds = Array.from({ length: count }, (_, i) => from + i)
let wrongPages = 0

async function tryPage(seed) {
  const { html, traits, pictures } = pageOf(seed)
  const site = join(folder, String(seed))
  mkdirSync(site)
  writeFileSync(join(site, 'index.html'), html)
  for (const { path, width, height } of pictures)
    writeFileSync(
      join(site, path),
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="9" height="9"/></svg>`,
    )
  const out = join(site, 'out')
  const { stdout, stderr } = await built(join(site, 'index.html'), out)
  if (!stdout) return [`wasn’t built: ${stderr}`]
  const { screens } = JSON.parse(readFileSync(join(out, 'site.json'), 'utf8'))
  const { walked, told, wrong } = await walk(browser, {
    address: pathToFileURL(join(out, 'index.html')).href,
    report: JSON.parse(stdout),
    views: viewsOf(seed, screens),
    seed,
  })
  console.log(`${seed}: ${walked} links walked, ${told} told, ${wrong.length} wrong (${traits.join(', ')})`)
  return wrong
}

/** Random screens and, last, a viewport that nobody measured; with and without reduced motion. */
function viewsOf(seed, screens) {
  const next = random(seed + 1)
  const measured = [...screens].sort(() => next() - 0.5).slice(0, views - 1)
  const other = { width: 320 + Math.floor(next() * 1500), height: 420 + Math.floor(next() * 900) }
  return [...measured, other].map((view) => ({ ...view, reducedMotion: next() < 0.5 ? 'reduce' : 'no-preference' }))
}

function built(page, out) {
  const args = [join(root, 'packages/cli/dist/main.js'), 'build', page, '--out', out, '--format', 'json', '--browser', executablePath]
  return new Promise((done) => {
    const child = spawn(process.execPath, args)
    let [stdout, stderr] = ['', '']
    child.stdout.on('data', (data) => (stdout += data))
    child.stderr.on('data', (data) => (stderr += data))
    child.on('close', () => done({ stdout, stderr }))
  })
}

await Promise.all(
  Array.from({ length: AT_ONCE }, async () => {
    for (let seed = seeds.shift(); seed !== undefined; seed = seeds.shift()) {
      const wrong = await tryPage(seed).catch((error) => [String(error.message)])
      if (wrong.length) wrongPages++
      for (const what of wrong) console.log(`    ${seed}: ${what}`)
    }
  }),
)
await browser.close()
rmSync(folder, { recursive: true, force: true })
console.log(`${count - wrongPages} of ${count} pages are right.`)
process.exitCode = wrongPages ? 1 : 0
