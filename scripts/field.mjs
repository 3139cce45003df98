/* global location, scrollX, scrollY, innerWidth, innerHeight, CSS, Node, NodeFilter, getComputedStyle */
/**
 * `npm run field -- [FOLDER…]`: builds each site of a folder (default: e2e/pages/field), walks every link of its menus in what was built at three
 * sizes with a real mouse, and prints what was found, what landed, what lit, what the tool said by itself, and what it did not say. It judges by
 * the browser alone and uses nothing of packages/ for that. Results are kept in .cache/field and taken again while page and tool are the same.
 *
 *   --all        every site, and not the seeded sample that fits into 25 minutes
 *   --again      walks again what is kept
 */
import { chromium } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ensureBrowser, ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
ensureBrowser()
if (run(process.execPath, [join(root, 'scripts/build.mjs'), '--quiet']).status !== 0) process.exit(1)

const flags = new Set(process.argv.slice(2).filter((a) => a.startsWith('--')))
const given = process.argv.slice(2).filter((a) => !a.startsWith('--'))
const own = join(root, 'e2e/pages/field')
const folders = given.length ? given.map((f) => resolve(f)) : [own]
const marks = JSON.parse(readFileSync(join(own, 'marks.json'), 'utf8'))
const executablePath = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium'
const SIZES = [
  [390, 844],
  [1280, 800],
  [1920, 1080],
]
/** Sites of the sample: about half a minute each. */
const SAMPLE = 40

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
const chosen = flags.has('--all') ? sites : [...sites].sort((a, b) => (bySeed(a) < bySeed(b) ? -1 : 1)).slice(0, SAMPLE)

const kept = join(root, '.cache/field')
mkdirSync(kept, { recursive: true })
const newest = (path) =>
  statSync(path).isDirectory() ? Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name)))) : statSync(path).mtimeMs
const tool = Math.max(...['core', 'runtime', 'agent', 'cli'].map((name) => newest(join(root, 'packages', name, 'dist'))))

const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
const rows = []
for (const site of chosen) {
  const name = site.split('/').at(-1)
  const file = join(kept, `${name}.json`)
  const state = `${newest(site)} ${tool} ${statSync(join(root, 'scripts/field.mjs')).mtimeMs}`
  const before = existsSync(file) && !flags.has('--again') ? JSON.parse(readFileSync(file, 'utf8')) : null
  const row = before?.state === state ? before : { state, ...(await walkSite(site, name)) }
  writeFileSync(file, JSON.stringify(row, null, 1))
  rows.push(row)
  console.log(
    `${name}: ${row.items} items, F1 ${row.f1 === null ? '–' : row.f1.toFixed(2)}, landed ${row.landed}, lit ${row.lit} of ${row.walked}; built in ${(row.ms / 1000).toFixed(1)} s; told ${row.told.length}, untold ${row.untold.length}`,
  )
  for (const what of row.untold.slice(0, 8)) console.log(`    not told: ${what}`)
}
await browser.close()

const sum = (of) => rows.reduce((n, row) => n + of(row), 0)
const scored = rows.filter((row) => row.f1 !== null)
const whole = rows.filter((row) => row.landed === row.walked && row.lit === row.walked)
const mean = scored.length ? sum((row) => row.f1 ?? 0) / scored.length : null
console.log(`
${rows.length} sites, ${whole.length} whole. ${sum((r) => r.walked)} links walked: ${sum((r) => r.landed)} landed, ${sum((r) => r.lit)} lit.
Sections: mean F1 ${mean === null ? '–' : mean.toFixed(3)} over ${scored.length} marked sites.
Faults that the tool did not tell: ${sum((r) => r.untold.length)}`)
process.exitCode = sum((r) => r.untold.length) > 0 || (mean !== null && mean < 0.95) ? 1 : 0

async function walkSite(site, name) {
  const out = mkdtempSync(join(tmpdir(), 'waybell-field-'))
  const started = Date.now()
  const built = spawnSync(
    process.execPath,
    [
      join(root, 'packages/cli/dist/main.js'),
      'build',
      join(site, 'index.html'),
      '--out',
      out,
      '--browser',
      executablePath,
      '--format',
      'json',
    ],
    { encoding: 'utf8', maxBuffer: 1e8, timeout: 180_000 },
  )
  const ms = Date.now() - started
  if (!built.stdout)
    return {
      name,
      items: 0,
      f1: null,
      landed: 0,
      lit: 0,
      walked: 0,
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
  let [walked, landed, lit] = [0, 0, 0]
  for (const [width, height] of SIZES) {
    const context = await browser.newContext({ viewport: { width, height }, hasTouch: width < 500 })
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
    for (const link of links) {
      // What leads elsewhere, or loads the page again, is not travelled on it.
      if ((!link.here || !link.href.includes('#')) && link.href !== '') continue
      const id = link.href.includes('#') ? decode(link.href.slice(link.href.indexOf('#') + 1)) : ''
      const what = `${width}x${height} “${link.label}” (${link.href})`
      const seen = await follow(page, link)
      if (!seen) continue
      if (id === '' && !/^(home|start|top|up)$/i.test(link.label)) {
        if (link.opens || link.label === '') continue
        if (!saidOf(link.label, link.href).length) untold.push(`${what} leads nowhere`)
        continue
      }
      walked++
      const result = await judge(page, link, id)
      if (result.landed === '') landed++
      else if (!saidOf(link.label, link.href).length) untold.push(`${what} ${result.landed}`)
      if (result.lit === '' || link.isName) lit++
      else if (!saidOf(link.label, link.href).length) untold.push(`${what} ${result.lit}`)
    }
    await context.close()
  }
  return {
    name,
    items: report.menus.reduce((n, m) => n + m.items.length, 0),
    f1: score(report.sections, marks[name]),
    landed,
    lit,
    walked,
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

/** Until nothing moves for several frames. */
async function rest(page) {
  let last = ''
  for (let still = 0, n = 0; still < 5 && n < 150; n++) {
    const now = await page.evaluate(async () => {
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
      const inner = [...document.querySelectorAll('*')]
        .filter((e) => e.scrollTop > 0 || e.scrollLeft > 0)
        .map((e) => [e.scrollTop, e.scrollLeft])
      return JSON.stringify([scrollX, scrollY, inner, document.getAnimations().filter((a) => a.playState === 'running').length])
    })
    still = now === last ? still + 1 : 0
    last = now
  }
}

/** Brings the link into view as a visitor would, and presses it; false where it cannot be had on this screen. */
async function follow(page, { m, n }) {
  await page.evaluate(() => {
    for (const e of [document.scrollingElement, ...document.querySelectorAll('*')])
      if (e.scrollTop > 0 || e.scrollLeft > 0) e.scrollTo({ top: 0, left: 0, behavior: 'instant' })
  })
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
  await page.waitForTimeout(200)
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

/** Whether what the link is about can be read where the page stands now, and whether the menu says so. */
function judge(page, { m, n }, id) {
  return page.evaluate(
    ([m, n, id]) => {
      const menu = document.querySelectorAll('[data-wb-menu]')[m]
      const link = menu.querySelectorAll('a')[n]
      const target = id === '' ? null : (document.getElementById(id) ?? document.querySelector(`a[name="${CSS.escape(id)}"]`))
      // The page as a whole begins at its top.
      const isTop = id === '' || target === document.body || target === document.documentElement || (!target && id.toLowerCase() === 'top')
      const landed = () => {
        if (isTop) return scrollY < 2 ? '' : `stands at ${Math.round(scrollY)} and not at the top`
        if (!target) return 'has no target'
        const shown = (el) => el.checkVisibility({ visibilityProperty: true }) && el.getBoundingClientRect().height > 0
        const headings = 'h1,h2,h3,h4,h5,h6,[role=heading]'
        const empty = !target.textContent.trim() && !target.querySelector('img,svg,video,canvas')
        const follows = (el) => target.compareDocumentPosition(el) & Node.DOCUMENT_POSITION_FOLLOWING
        const heading = target.matches(headings)
          ? target
          : empty
            ? [...document.querySelectorAll(headings)].find((h) => follows(h) && shown(h))
            : [...target.querySelectorAll(headings)].find(shown)
        const el = heading ?? target
        if (!shown(el)) return 'leads to what cannot be seen on this screen'
        // Of what has no heading, where its first words stand.
        const words = heading
          ? null
          : document
              .createTreeWalker(el, NodeFilter.SHOW_TEXT, (n) =>
                n.nodeValue.trim() && shown(n.parentElement) ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
              )
              .nextNode()
        const range = document.createRange()
        if (words) range.selectNodeContents(words)
        const box = words ? range.getBoundingClientRect() : el.getBoundingClientRect()
        const line = {
          x: Math.min(Math.max(box.left + Math.min(box.width / 2, 30), 1), innerWidth - 2),
          y: box.top + Math.min(box.height / 2, 20),
        }
        if (box.right < 1 || box.left > innerWidth - 1) return 'leads to what is out of view, sideways'
        if (line.y < 0 || line.y > innerHeight) return `leaves its heading out of view, at ${Math.round(box.top)}`
        const hit = document.elementFromPoint(line.x, line.y)
        for (let e = hit; e && e !== document.body; e = e.parentElement) {
          const { position } = getComputedStyle(e)
          if (position === 'fixed' && !e.contains(el)) return `leaves its heading under “${e.id || e.className || e.localName}”`
          if (position === 'sticky' && !e.contains(el) && e.getBoundingClientRect().height < innerHeight / 2)
            return `leaves its heading under “${e.id || e.className || e.localName}”`
        }
        const top = target.getBoundingClientRect().top
        let scroller = el.parentElement
        while (scroller && !(scroller.scrollHeight > scroller.clientHeight + 2 && /auto|scroll/.test(getComputedStyle(scroller).overflowY)))
          scroller = scroller.parentElement
        const s = scroller ?? document.scrollingElement
        const atEnd = s.scrollTop >= s.scrollHeight - s.clientHeight - 2
        // Further down than half the screen it is not what one pressed for, unless the page ends there.
        if (Math.min(top, box.top) > innerHeight / 2 && !atEnd) return `stops short: it begins at ${Math.round(top)}`
        if (top < -innerHeight / 2 && box.top < 0) return `goes too far: it begins at ${Math.round(top)}`
        return ''
      }
      const lit = () => {
        const marked = [...menu.querySelectorAll('a[aria-current]')].filter((a) => a.getAttribute('aria-current') !== 'false')
        // One that marks its items by itself may say so by a class.
        const named = /(^|[\s_-])(active|current|selected)([\s_-]|$)/
        if (!marked.length)
          marked.push(
            ...[...menu.querySelectorAll('a[href]')].filter((a) => named.test(a.className) || named.test(a.closest('li')?.className ?? '')),
          )
        const same = (a) => decodeURI(a.hash) === decodeURI(link.hash)
        if (!marked.length) return 'is not marked'
        if (!marked.every(same)) return `has “${marked.map((a) => a.textContent.trim())}” marked`
        const shown = [...menu.querySelectorAll('a[href]')].filter((a) => a.checkVisibility({ visibilityProperty: true }))
        const others = shown.filter((a) => !marked.includes(a))
        const looks = [
          'color',
          'fontWeight',
          'fontSize',
          'textDecorationLine',
          'textDecorationThickness',
          'backgroundColor',
          'backgroundImage',
          'borderBottomWidth',
          'borderBottomColor',
          'borderBottomStyle',
          'boxShadow',
          'outlineStyle',
          'opacity',
        ]
        const look = (el, pseudo) => looks.map((name) => getComputedStyle(el, pseudo)[name]).join()
        const apart = (a, b) => {
          for (let [x, y] = [a, b]; x && y && x !== menu && y !== menu && x !== y; [x, y] = [x.parentElement, y.parentElement])
            if (look(x) !== look(y) || look(x, '::before') !== look(y, '::before') || look(x, '::after') !== look(y, '::after')) return true
          return false
        }
        const current = marked.filter((a) => shown.includes(a))
        if (!current.length) {
          // In a closed list its parent has to say it; a menu that is closed as a whole has nobody to say it to.
          if (!shown.length) return ''
          const group = marked[0].closest('ul ul, ol ol, details')?.parentElement?.closest('li') ?? marked[0].closest('details')
          const head = group?.querySelector('summary, span, a, button')
          const sibling =
            head &&
            [...menu.querySelectorAll('summary, a, span, button')].find(
              (e) => e !== head && e.localName === head.localName && shown.includes(e),
            )
          return head && (head.matches('[aria-current], [data-wb-within]') || (sibling && apart(head, sibling)))
            ? ''
            : 'is marked in a closed list, and nothing in view says so'
        }
        return !others.length || current.some((a) => others.every((b) => apart(a, b))) ? '' : 'is marked, and looks as the others do'
      }
      return { landed: landed(), lit: lit() }
    },
    [m, n, id],
  )
}
