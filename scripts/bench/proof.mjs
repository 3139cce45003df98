/** How long proof takes: building a page with all links tried, one link, and findings. */
import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from '../ensure.mjs'

const SHELL = '/usr/bin/chromium-headless-shell'
const ROUNDS = 3
const median = (numbers) => [...numbers].sort((a, b) => a - b)[numbers.length >> 1]
const seconds = (ms) => `${(ms / 1000).toFixed(2)} s`

/** Whole processes, in ms. */
function timed(file, args) {
  const start = performance.now()
  const { status, stderr } = spawnSync(process.execPath, [file, ...args], { encoding: 'utf8' })
  if (status === null || status > 1) throw new Error(stderr)
  return performance.now() - start
}

/** @param report takes a figure: subject, value, budget, whether met */
export async function proof(report) {
  builds(report)
  await oneLink(report)
  await findings(report)
}

function builds(report) {
  const out = mkdtempSync(join(tmpdir(), 'waybell-bench-'))
  const page = join(root, 'demo/ostrey/index.html')
  const copies = ['one', 'two', 'three'].map((name) => {
    cpSync(join(root, 'demo/ostrey'), join(out, name), { recursive: true })
    return join(out, name, 'index.html')
  })
  const cli = join(root, 'packages/cli/dist/main.js')
  const build = (pages, n) => timed(cli, ['build', ...pages, '--out', join(out, `built-${n}`), '--browser', SHELL])
  const rounds = Array.from({ length: ROUNDS }, (_, n) => ({
    yardstick: timed(join(root, 'scripts/bench/yardstick.mjs'), [SHELL, page]),
    build: build([page], n),
    three: build(copies, `three-${n}`),
  }))
  const [base, one, three] = ['yardstick', 'build', 'three'].map((name) => median(rounds.map((r) => r[name])))
  report(
    '`waybell build` of the demo’s landing page, five screens, every link tried from above and from below',
    seconds(one),
    '4 s',
    one <= 4000,
  )
  report(
    'the same, against what the same browser needs to start and load the page once on each screen',
    `${(one / base).toFixed(1)} times (${seconds(base)})`,
    '2 times',
    one <= base * 2,
  )
  const more = (three - one) / 2
  report('each further page in the same run', seconds(more), '2.5 s', more <= 2500)
}

/** Both directions, instant motion, without header transition or page script. */
async function oneLink(report) {
  const core = await import(join(root, 'packages/core/dist/index.js'))
  const { mountFolder, startBrowser } = await import(join(root, 'packages/driver/dist/index.js'))
  const out = mkdtempSync(join(tmpdir(), 'waybell-bench-'))
  timed(join(root, 'packages/cli/dist/main.js'), ['build', join(root, 'e2e/pages/field/bakery/index.html'), '--out', out, '--no-try'])
  const file = join(out, 'index.html')
  const bytes = readFileSync(file)
  const browser = await startBrowser(SHELL)
  const parsed = core.parsePage(bytes)
  // With all that was written.
  const html = Buffer.from(core.stampPage(bytes, { ...parsed, tree: { ...parsed.tree, written: [] } }, ''))
  const page = await browser.open(mountFolder(file, html, 'utf-8', []), core.defaultScreens[0])
  const times = []
  await page.run(async (agent) => {
    const menus = { marked: [], items: [] }
    await agent.tryLink(0, false, menus)
    for (let n = 0; n < 30; n++) {
      const start = performance.now()
      await agent.tryLink(1 + (n % 3), false, menus)
      times.push(performance.now() - start)
    }
  })
  await page.close()
  await browser.close()
  const ms = median(times)
  report('one link tried on one screen, from above and from below', `${ms.toFixed(0)} ms`, '40 ms', ms <= 40)
}

/** Open findings of a page with 1,000 sections on five screens. */
async function findings(report) {
  const core = await import(join(root, 'packages/core/dist/index.js'))
  const count = 1000
  const item = (_, i) => `<a href="#c${i}">Chapter ${i}</a>`
  const section = (_, i) => `<section id="c${i}"><h2>Chapter ${i}</h2><p>Words <a href="#c${(i * 7) % count}">see</a></p></section>`
  const text = `<!doctype html><html lang="en"><head><title>Manual</title></head><body><header><nav>${Array.from({ length: 20 }, item).join('')}</nav></header><main>${Array.from({ length: count }, section).join('')}</main></body></html>`
  const bytes = new TextEncoder().encode(text)
  const parsed = core.parsePage(bytes)
  const reading = core.readParsed(parsed, bytes.length, 'index.html')
  const known = core.knownOf({ parsed, reading, missing: new Set(), scripts: [], styles: [] })
  const page = { key: 'p1', file: 'index.html', source: '', title: '', ...core.proposeSetUp(reading, [], core.defaultRule) }
  const { defaultScreens: screens, defaultRule: rule, SITE_VERSION: version } = core
  const site = { format: 'way-bell-site', version, name: '', rule, screens, pages: [page] }
  const surveys = Object.fromEntries(screens.map((screen, n) => [screen.key, surveyOf(screen, page.sections, n)]))
  const { undeclared, named } = known
  const input = { site, page, reading, undeclared, named, known: new Set(), surveys, tried: {}, trouble: null }
  const times = Array.from({ length: 7 }, () => {
    const start = performance.now()
    core.openFindings(input, known.findings)
    return performance.now() - start
  })
  const ms = median(times)
  report('open findings of 1,000 sections on five screens', `${ms.toFixed(0)} ms`, '100 ms', ms <= 100)
}

const surveyOf = ({ key, width, height }, sections, n) => ({
  screen: key,
  width,
  height,
  scroller: null,
  pageHeight: sections.length * 300,
  maxScroll: sections.length * 300 - height,
  header: null,
  near: [],
  bottom: 0,
  built: { headings: [], menus: [], targets: [] },
  menus: [],
  pictures: [],
  estimates: [],
  looks: [],
  padding: 0,
  background: 'rgb(255, 255, 255)',
  parts: sections.map(({ at }, i) => ({
    at,
    top: 100 + i * 300 + n,
    bottom: 400 + i * 300 + n,
    left: 0,
    movedTop: 100 + i * 300 + n,
    margin: 0,
    hasBox: true,
    heading: { top: 100 + i * 300, bottom: 140 + i * 300 },
    shift: 0,
    background: 'rgb(255, 255, 255)',
    grounds: [],
  })),
})
