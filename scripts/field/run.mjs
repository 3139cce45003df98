/* global location, scrollY, innerWidth */
/**
 * `npm run field -- [FOLDER…]`: builds each site of a folder (default: e2e/pages/field), walks every link of its menus in what was built on the
 * site's five screens with a real mouse, from the page's top with smooth scrolling and with reduced motion, and from its end with reduced motion, and prints what
 * was found, what landed, what lit, how much of it stopped within 1 px of where it was computed, what the tool said by itself, and what it did not
 * say. It judges by the browser alone and uses nothing of packages/ for that. Results are kept in .cache/field and taken again while page and tool are the same.
 *
 *   --all        every site, and not the seeded sample that fits into 25 minutes; of an engine always
 *   --again      walks again what is kept
 *   --engine E   chromium, firefox or webkit: has what was built as a visitor of that engine has it, on the demo and the pages of the tests too
 */
import { chromium } from '@playwright/test'
import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'
import { ensureBrowser, ensurePackages, root, run } from '../ensure.mjs'
import { engines } from './engines.mjs'
import { judge } from './judge.mjs'
import { rest } from './rest.mjs'
import { sizesSaid, writtenIn } from './sizes.mjs'
import { visitAll } from './visitors.mjs'

ensurePackages()
ensureBrowser()
if (run(process.execPath, [join(root, 'scripts/build.mjs'), '--quiet']).status !== 0) process.exit(1)

const { values: flags, positionals: given } = parseArgs({
  allowPositionals: true,
  options: { all: { type: 'boolean' }, again: { type: 'boolean' }, engine: { type: 'string' } },
})
const own = join(root, 'e2e/pages/field')
const folders = given.length ? given.map((f) => resolve(f)) : [own]
const marks = JSON.parse(readFileSync(join(own, 'marks.json'), 'utf8'))
const executablePath = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium'
/** Sites of the sample: about a minute each. Of an engine all are visited, since several are at once. */
const SAMPLE = 24
/** Screens that are walked at once: most of it is waiting until a page stands still. */
const AT_ONCE = 3
/** Of a menu without end so many links are walked on each screen, from each side. */
const MOST_LINKS = 24
/** In px: two roundings may differ by as much. */
const EXACT = 1.01

const sites = folders.flatMap((folder) =>
  existsSync(join(folder, 'index.html'))
    ? [folder]
    : readdirSync(folder)
        .map((name) => join(folder, name))
        .filter((site) => existsSync(join(site, 'index.html'))),
)
const bySeed = (site) =>
  createHash('sha256')
    .update(`1 ${site.split('/').at(-1)}`)
    .digest('hex')
const chosen = flags.all || flags.engine ? sites : [...sites].sort((a, b) => (bySeed(a) < bySeed(b) ? -1 : 1)).slice(0, SAMPLE)

const kept = join(root, '.cache/field')
mkdirSync(kept, { recursive: true })
const newest = (path) =>
  statSync(path).isDirectory() ? Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name)))) : statSync(path).mtimeMs
const tool = Math.max(...['core', 'runtime', 'agent', 'cli'].map((name) => newest(join(root, 'packages', name, 'dist'))))

if (flags.engine) {
  if (!engines[flags.engine]) {
    console.error(`There is no engine “${flags.engine}” here: chromium, firefox and webkit are.`)
    process.exit(1)
  }
  const own = given.length ? [] : [join(root, 'demo/ostrey'), ...ofTests()]
  process.exit(
    await visitAll({ engine: flags.engine, sites: [...own, ...chosen], build, again: flags.again, kept, isWhole: !given.length }),
  )
}

const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
const rows = []
/** Sites that could not be walked. */
const left = []
for (const site of chosen) {
  const name = site.split('/').at(-1)
  const file = join(kept, `${name}.json`)
  const state = `${newest(site)} ${tool} ${newest(join(root, 'scripts/field'))}`
  const before = existsSync(file) && !flags.again ? JSON.parse(readFileSync(file, 'utf8')) : null
  const row = before?.state === state ? before : { state, ...(await walkSite(site, name).catch((error) => ({ error }))) }
  if (row.error) {
    // The others are walked all the same; this one is when it is called again.
    console.log(`${name}: could not be walked: ${row.error.message}`)
    left.push(name)
    continue
  }
  writeFileSync(file, JSON.stringify(row, null, 1))
  rows.push(row)
  console.log(
    `${name}: ${row.items} items, F1 ${row.f1 === null ? '–' : row.f1.toFixed(2)}, landed ${row.landed}, lit ${row.lit}, exact ${row.exact} of ${row.walked}; built in ${(row.ms / 1000).toFixed(1)} s; script ${row.written.lines} lines, ${row.written.packed} bytes packed, style ${row.written.style} lines; told ${row.told.length}, untold ${row.untold.length}`,
  )
  for (const what of row.untold.slice(0, 8)) console.log(`    not told: ${what}`)
  for (const { what } of row.off.slice(0, 4)) console.log(`    not exact: ${what}`)
}
await browser.close()

const sum = (of) => rows.reduce((n, row) => n + of(row), 0)
const scored = rows.filter((row) => row.f1 !== null)
const whole = rows.filter((row) => row.landed === row.walked && row.lit === row.walked)
const worst = rows.flatMap((row) => row.off).reduce((most, one) => (most && most.by >= one.by ? most : one), null)
const share = sum((r) => r.walked) ? (100 * sum((r) => r.exact)) / sum((r) => r.walked) : 100
const mean = scored.length ? sum((row) => row.f1 ?? 0) / scored.length : null
console.log(`
${rows.length} sites, ${whole.length} whole. ${sum((r) => r.walked)} links walked: ${sum((r) => r.landed)} landed, ${sum((r) => r.lit)} lit.
Exact within 1 px: ${share.toFixed(2)} %${worst ? `; the worst by ${Math.round(worst.by)} px: ${worst.what}` : ''}
${sizesSaid(rows.map((row) => row.written))}
Sections: mean F1 ${mean === null ? '–' : mean.toFixed(3)} over ${scored.length} marked sites.
Faults that the tool did not tell: ${sum((r) => r.untold.length)}${left.length ? `\nNot walked: ${left.join(', ')}` : ''}`)
process.exitCode = left.length > 0 || sum((r) => r.untold.length) > 0 || (mean !== null && mean < 0.95) ? 1 : 0

/** The single pages of the browser tests, each as a site. */
function ofTests() {
  const folder = join(root, 'e2e/pages')
  return readdirSync(folder)
    .filter((file) => file.endsWith('.html'))
    .map((file) => {
      const site = join(kept, 'pages', file.slice(0, -5))
      mkdirSync(site, { recursive: true })
      cpSync(join(folder, file), join(site, 'index.html'), { preserveTimestamps: true })
      return site
    })
}

/** The site as it is handed over, built again only where page or tool changed; null where nothing was. */
async function build(site) {
  const out = join(kept, 'built', site.split('/').at(-1))
  const state = `${newest(site)} ${tool}`
  const stamp = `${out}.state`
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === state) return { out, state }
  rmSync(out, { recursive: true, force: true })
  mkdirSync(out, { recursive: true })
  if (!(await buildSite(site, out)).stdout) return null
  writeFileSync(stamp, state)
  return { out, state }
}

/** Builds a site by the command line, as anybody would, with the browser that it takes by itself; where it says that something is wrong as well. */
async function buildSite(site, out) {
  const cli = join(root, 'packages/cli/dist/main.js')
  const args = ['build', join(site, 'index.html'), '--out', out, '--format', 'json']
  const started = Date.now()
  const given = { encoding: 'utf8', maxBuffer: 1e8, timeout: 180_000 }
  const { stdout, stderr } = await new Promise((done) =>
    execFile(process.execPath, [cli, ...args, ...(flags.engine ? ['--no-try'] : [])], given, (_, stdout, stderr) =>
      done({ stdout, stderr }),
    ),
  )
  return { stdout, stderr, ms: Date.now() - started }
}

async function walkSite(site, name) {
  const out = mkdtempSync(join(tmpdir(), 'waybell-field-'))
  const built = await buildSite(site, out)
  const { ms } = built
  if (!built.stdout)
    return {
      name,
      items: 0,
      f1: null,
      landed: 0,
      lit: 0,
      walked: 0,
      exact: 0,
      off: [],
      written: await writtenIn(''),
      ms,
      told: [built.stderr],
      untold: [`nothing was built: ${built.stderr}`],
    }
  const report = JSON.parse(built.stdout)
  const saidOf = (label, href) => [
    ...(report.links ?? []).filter((l) => l.fault && (l.href === href || l.label === label)).map((l) => `${l.screen}: ${l.why}`),
    ...report.findings
      .filter((f) => ['error', 'warning'].includes(f.severity) && label && f.message.includes(`“${label}”`))
      .map((f) => f.message),
    ...report.findings.filter((f) => href.length > 1 && f.message.includes(`“${decode(href)}”`)).map((f) => f.message),
  ]
  const told = [
    ...(report.links ?? []).filter((l) => l.fault).map((l) => `${l.screen} “${l.label}” ${l.why}`),
    ...report.findings.map((f) => `${f.severity} ${f.code}: ${f.message}`),
  ]
  const untold = []
  const off = []
  let [walked, landed, lit, exact] = [0, 0, 0, 0]
  const { screens } = JSON.parse(readFileSync(join(out, 'site.json'), 'utf8'))
  const walkOn = async ({ key, width, height, touch }, isBelow, reducedMotion) => {
    const context = await browser.newContext({ viewport: { width, height }, hasTouch: touch, reducedMotion })
    const page = await context.newPage()
    page.setDefaultTimeout(5000)
    // Nothing but the page's own files.
    await page.route(/^https?:/, (route) => route.abort())
    await page.goto(pathToFileURL(join(out, 'index.html')).href, { waitUntil: 'load', timeout: 30_000 }).catch(() => {})
    await rest(page)
    // A page that works already carries nothing of ours: its menus are those that say they are navigation.
    await page.evaluate(() => {
      if (!document.querySelector('[data-wb-menu]'))
        for (const nav of document.querySelectorAll('nav, [role=navigation]')) nav.setAttribute('data-wb-menu', '')
    })
    const links = await page.evaluate(() =>
      [...document.querySelectorAll('[data-wb-menu]')].flatMap((menu, m) =>
        [...menu.querySelectorAll('a')].map((a, n) => {
          const href = a.getAttribute('href')
          const here = href !== null && new URL(a.href, document.baseURI).href.split('#')[0] === location.href.split('#')[0]
          return {
            m,
            n,
            href: href ?? '',
            label: (a.textContent ?? '').trim().replace(/\s+/g, ' '),
            here,
            opens: !!a.parentElement.querySelector('ul, ol'),
            // A site's name that leads home is no item of the menu, and is marked in none.
            isName: /(^|[\s_-])(brand|logo)([\s_-]|$)/i.test(a.className),
          }
        }),
      ),
    )
    for (const link of links.slice(0, MOST_LINKS)) {
      // What leads elsewhere, or loads the page again, is not travelled on it.
      if ((!link.here || !link.href.includes('#')) && link.href !== '') continue
      const id = link.href.includes('#') ? decode(link.href.slice(link.href.indexOf('#') + 1)) : ''
      const what = `${width}x${height} from ${isBelow ? 'below' : 'above'}${reducedMotion === 'reduce' ? ' with reduced motion' : ''} “${link.label}” (${link.href})`
      const seen = await follow(page, link, isBelow)
      if (!seen) continue
      if (id === '' && !/^(home|start|top|up)$/i.test(link.label)) {
        if (link.opens || link.label === '') continue
        if (!saidOf(link.label, link.href).length) untold.push(`${what} leads nowhere`)
        continue
      }
      walked++
      const result = await page.evaluate(judge, [link.m, link.n, id])
      if (result.landed === '') landed++
      else if (!saidOf(link.label, link.href).length) untold.push(`${what} ${result.landed}`)
      if (result.lit === '' || link.isName) lit++
      else if (!saidOf(link.label, link.href).length) untold.push(`${what} ${result.lit}`)
      const computed = report.arrivals.find((a) => a.screen === key && a.id === id)
      const by = !computed ? 0 : Math.abs(computed.land < 1 ? result.scroll : result.top - computed.target)
      if (by <= EXACT) exact++
      else
        off.push({ by, what: `${what} by ${(result.top - computed.target).toFixed(1)} px, at ${result.scroll} and not ${computed.land}` })
    }
    await context.close()
  }
  const ways = screens.flatMap((screen) => [
    [screen, false, 'no-preference'],
    [screen, false, 'reduce'],
    [screen, true, 'reduce'],
  ])
  const walkers = Array.from({ length: AT_ONCE }, async () => {
    for (let way = ways.shift(); way; way = ways.shift()) await walkOn(...way)
  })
  await Promise.all(walkers)
  return {
    name,
    items: report.menus.reduce((n, m) => n + m.items.length, 0),
    f1: score(report.sections, marks[name]),
    landed,
    lit,
    walked,
    exact,
    off,
    written: await writtenIn(readFileSync(join(out, 'index.html'), 'utf8')),
    ms,
    told,
    untold,
  }
}

function decode(text) {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

/** Harmonic mean of how many of the wanted are there, and how many of those that are there are wanted; what is right either way counts for neither. */
function score(sections, wanted) {
  if (!wanted) return null
  const is = (mark, { id, title }) => mark === `#${id}` || mark === title
  const must = wanted.sections.filter((m) => !m.startsWith('?'))
  const may = wanted.sections.filter((m) => m.startsWith('?')).map((m) => m.slice(1))
  const counted = sections.filter((s) => !may.some((m) => is(m, s)))
  const hits = must.filter((m) => counted.some((s) => is(m, s))).length
  if (!must.length && !counted.length) return 1
  return hits === 0 ? 0 : (2 * hits) / (must.length + counted.length)
}

/** Brings the link into view as a visitor would, and presses it; false where it cannot be had on this screen. */
async function follow(page, { m, n }, isBelow) {
  await page.evaluate((isBelow) => {
    for (const e of [document.scrollingElement, ...document.querySelectorAll('*')])
      if (e.scrollTop > 0 || e.scrollLeft > 0) e.scrollTo({ top: 0, left: 0, behavior: 'instant' })
    if (isBelow)
      for (const e of [document.scrollingElement, ...document.querySelectorAll('[data-wb-scroller]')])
        e.scrollTo({ top: 1e6, behavior: 'instant' })
  }, isBelow)
  await rest(page)
  const link = page.locator('[data-wb-menu]').nth(m).locator('a').nth(n)
  if (!(await isPressable(link))) {
    // In a list that opens by hovering, or by what stands before it.
    const opener = await link.evaluateHandle((a) => {
      const closed = a.closest('details:not([open])')
      if (closed) return closed.querySelector('summary')
      const list = a.closest('ul, ol')
      return list?.closest('li')?.querySelector('a, button, span') ?? null
    })
    const el = opener.asElement()
    if (el && (await el.isVisible().catch(() => false))) {
      if ((await el.evaluate((e) => e.localName)) === 'summary') await el.click().catch(() => {})
      else await el.hover().catch(() => {})
      await rest(page)
    }
  }
  if (!(await isPressable(link))) {
    // Behind a button.
    const button = page.locator('button[aria-controls], button[aria-expanded], [class*="toggle"], [class*="burger"]').first()
    if (await button.isVisible().catch(() => false)) {
      await button.click().catch(() => {})
      await page.waitForTimeout(500)
      await rest(page)
    }
  }
  await link.scrollIntoViewIfNeeded().catch(() => {})
  await rest(page)
  if (!(await isPressable(link))) return false
  const before = await page.evaluate(() => scrollY)
  const pressed = await link.click({ timeout: 4000 }).then(
    () => true,
    () => false,
  )
  if (!pressed) return false
  await page.waitForFunction((y) => scrollY !== y, before, { timeout: 700 }).catch(() => {})
  await rest(page)
  await page.mouse.move(3, Math.max(10, page.viewportSize().height - 5))
  // Where a script of the page took the press, it is put right a moment after that has done.
  await page.waitForTimeout(900)
  await rest(page)
  return true
}

function isPressable(link) {
  return link
    .evaluate((a) => {
      if (!a.checkVisibility({ visibilityProperty: true })) return false
      const b = a.getBoundingClientRect()
      return b.width > 0 && b.height > 0 && b.right > 0 && b.left < innerWidth
    })
    .catch(() => false)
}
