/** `waybell build` when something goes wrong: odd names, several pages in a folder, a browser that crashes, wrong links. */
import { expect, test } from '@playwright/test'
import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { browserPath, peoplesBrowserPath } from './support/browsers.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'

interface Report {
  file: string
  isMeasured: boolean
  arrivals: { screen: string; id: string; land: number; gap: number }[]
  links: { screen: string; label: string; fault: string | null }[] | null
  outcome: { tried: number; wrong: number; nowhere: number; unconfirmed: number; untried: number } | null
  findings: { code: string; severity: string }[]
}

const page = (nav: string, more = '') => `<!doctype html><html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1"><title>Reed beds</title><style>
body { margin: 0; font: 16px/1.6 serif } header { position: sticky; top: 0; background: #fff; padding: 20px } section { min-height: 90vh; padding: 30px }
</style></head><body><header><nav>${nav}</nav></header>
<section id="cutting"><h2>Cutting</h2><p>In winter.</p></section><section id="drying"><h2>Drying</h2><p>In spring.</p></section>
<section id="thatch"><h2>Thatch</h2><p>In summer.</p></section>${more}</body></html>`
const sound = '<a href="#cutting">Cutting</a> <a href="#drying">Drying</a> <a href="#thatch">Thatch</a>'

/** A site of one page in its own folder, built. */
async function built(html: string, ...args: string[]) {
  const folder = freshFolder()
  writeFileSync(join(folder, 'index.html'), html)
  const run = await waybellBuilt(
    'build',
    join(folder, 'index.html'),
    '--out',
    join(folder, 'out'),
    '--screens',
    'laptop,phone',
    '--format',
    'json',
    ...args,
  )
  return { ...run, report: JSON.parse(run.stdout) as Report }
}

test('a file name with a bare per cent sign is served, copied and built', async () => {
  const folder = freshFolder()
  writeFileSync(join(folder, 'index.html'), page(sound, '<img src="100%.svg" alt="All of it">'))
  writeFileSync(join(folder, '100%.svg'), '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="700"/>')
  const run = await waybellBuilt('build', join(folder, 'index.html'), '--out', join(folder, 'out'), '--format', 'json')
  expect(run.code, run.stderr).toBe(0)
  expect((JSON.parse(run.stdout) as Report).isMeasured).toBe(true)
  expect(readFileSync(join(folder, 'out/100%.svg'), 'utf8')).toContain('700')
})

test('pages of a folder become pages of a site', async () => {
  const folder = freshFolder()
  for (const name of ['a', 'b']) writeFileSync(join(folder, `${name}.html`), page(sound).replace('Reed beds', name))
  const files = ['a.html', 'b.html'].map((name) => join(folder, name))
  const run = await waybellBuilt('build', ...files, '--out', join(folder, 'out'), '--no-try')
  expect(run.code, run.stderr).toBe(0)
  const site = JSON.parse(readFileSync(join(folder, 'out/site.json'), 'utf8')) as { pages: { key: string; file: string }[] }
  expect(site.pages.map((p) => [p.key, p.file])).toEqual([
    ['p1', 'a.html'],
    ['p2', 'b.html'],
  ])
})

test('a page is built for the named screens only', async () => {
  const { code, report } = await built(page(sound))
  expect([code, new Set(report.links!.map((l) => l.screen))]).toEqual([0, new Set(['laptop', 'phone'])])
  const wrong = await waybellBuilt('build', 'index.html', '--out', freshFolder(), '--screens', 'laptop,watch')
  expect(wrong.code).toBe(2)
  expect(wrong.stderr).toContain('there is no “watch”; name some of laptop, phone, tablet')
})

test('when the browser crashes and doesn’t restart, measurements stay, and the rest is reported as unmeasured', async () => {
  const folder = freshFolder()
  const files = ['one', 'two', 'three'].map((name) => {
    mkdirSync(join(folder, name))
    writeFileSync(join(folder, name, 'index.html'), page(sound))
    return join(folder, name, 'index.html')
  })
  // Starts while the file exists.
  const starts = join(folder, 'starts')
  writeFileSync(starts, '')
  const browser = join(folder, 'chromium-headless-shell')
  writeFileSync(browser, `#!/bin/sh\n[ -e '${starts}' ] || exit 1\nexec '${browserPath}' "$@"\n`)
  chmodSync(browser, 0o755)
  const cli = join(repository, 'packages/cli/dist/main.js')
  const child = spawn(process.execPath, [cli, 'build', ...files, '--out', join(folder, 'out'), '--browser', browser, '--format', 'json'])
  let [stdout, stderr] = ['', '']
  child.stdout.on('data', (chunk: Buffer) => (stdout += chunk.toString()))
  child.stderr.on('data', (chunk: Buffer) => {
    stderr += chunk.toString()
    if (!stderr.includes('two/index.html: ') || stderr.includes('three')) return
    spawnSync('rm', ['-f', starts])
    // Each browser has a process group of its own.
    const { stdout: started } = spawnSync('pgrep', ['-P', String(child.pid)], { encoding: 'utf8' })
    for (const pid of started.split('\n').filter(Boolean)) spawnSync('kill', ['-KILL', '--', `-${pid}`])
  })
  const code = await new Promise((done) => child.on('close', done))
  const reports = JSON.parse(stdout) as Report[]
  expect(reports.map((r) => [r.isMeasured, r.arrivals.length > 0, r.links !== null])).toEqual([
    [true, true, true],
    [true, true, true],
    [false, false, false],
  ])
  expect(code).toBe(1)
  expect(stderr).toMatch(/three.index\.html: not measured: the browser ended/)
  expect(readFileSync(join(folder, 'out/three/index.html'), 'utf8')).toContain('data-wb="style"')
})

test('“all arrive” requires every menu link to have a target, confirmed, tried, and arrived', async () => {
  const all = await built(page(sound))
  expect([all.code, all.report.outcome]).toEqual([0, { tried: 3, wrong: 0, nowhere: 0, unconfirmed: 0, untried: 0 }])
  expect(all.stderr).toContain('3 links tried, all arrive')

  const holds = await built(page(`${sound} <a href="#">Prices</a>`))
  expect([holds.code, holds.report.outcome]).toEqual([1, { tried: 3, wrong: 0, nowhere: 1, unconfirmed: 0, untried: 0 }])
  expect(holds.stderr).toContain('3 links tried, 1 leads nowhere')
  expect(holds.stderr).toContain('error item-nowhere')

  const guessed = await built(page(sound.replace('#thatch">Thatch', '#">On thatching')))
  expect([guessed.code, guessed.report.outcome]).toEqual([1, { tried: 3, wrong: 0, nowhere: 0, unconfirmed: 1, untried: 0 }])
  expect(guessed.stderr).not.toContain('all arrive')

  // A menu that is hidden on every screen.
  const hidden = await built(page(sound).replace('</style>', 'nav { display: none }</style>'))
  expect([hidden.code, hidden.report.outcome?.untried]).toEqual([1, 3])
  expect(hidden.stderr).toContain('3 not tried')
})

test('an unmarked link is reported, whatever its label', async () => {
  const odd = `<a href="#cutting">Reed<br>cutting</a> <a href="#drying"><svg width="20" height="20"><title>Drying</title></svg></a>
    <a href="#thatch"><img src="data:," alt="Thatch" width="20" height="20"></a>`
  const unmarked = `<script>const set = Element.prototype.setAttribute
    Element.prototype.setAttribute = function (name, value) { if (name !== 'aria-current') set.call(this, name, value) }</script>`
  const html = page(odd, unmarked)
  const { code, report, stderr } = await built(html)
  expect(code, stderr).toBe(1)
  expect(new Set(report.links!.map((l) => `${l.label} ${l.fault}`))).toEqual(new Set(['Reedcutting unlit', 'Drying unlit', 'Thatch unlit']))
})

test('links have the same results in the shell in virtual time and in Chromium in real time', async () => {
  const names = ['bakery', 'shrinks']
  const reports = async (browser: string) => {
    const asked = ['--browser', browser, '--screens', 'laptop,phone', '--format', 'json']
    const files = names.map((name) => join(repository, 'e2e/pages/field', name, 'index.html'))
    const run = await waybellBuilt('build', ...files, '--out', freshFolder(), ...asked)
    return JSON.parse(run.stdout) as Report[]
  }
  const [virtual, real] = [await reports('/usr/bin/chromium-headless-shell'), await reports(peoplesBrowserPath)]
  for (const [n, name] of names.entries()) {
    expect(virtual[n]!.arrivals.length, name).toBeGreaterThan(0)
    expect(virtual[n]!.links, name).toEqual(real[n]!.links)
    for (const [i, arrival] of virtual[n]!.arrivals.entries()) {
      const other = real[n]!.arrivals[i]!
      expect([name, arrival.screen, arrival.id]).toEqual([name, other.screen, other.id])
      expect(Math.abs(arrival.land - other.land), `${name} ${arrival.screen} ${arrival.id}`).toBeLessThanOrEqual(1)
    }
  }
})

const surveyedTwice = [
  ['aria', 'buttons', 'by-look', 'cards', 'festival', 'folded', 'garden', 'harbour', 'dots', 'leaves'],
  ['lifted', 'looks', 'mega', 'numbered', 'panes', 'rail', 'rtl-shop', 'stuck', 'tall-bar', 'underlined', 'works'],
]
for (const names of surveyedTwice)
  test(`both browsers give the same surveys: ${names[0]} to ${names.at(-1)}`, async () => {
    const files = names.map((name) => join(repository, 'e2e/pages/field', name, 'index.html'))
    const surveyed = async (browser: string) => {
      const asked = ['--browser', browser, '--screens', 'laptop,phone', '--format', 'json']
      const run = await waybellBuilt('build', ...files, '--out', freshFolder(), '--no-try', ...asked)
      return (JSON.parse(run.stdout) as Report[]).map(({ file, arrivals }) => ({
        file: file.split('/').at(-2),
        arrivals: arrivals.map(({ screen, id, land, gap }) => `${screen} ${id} ${Math.round(land)} ${Math.round(gap)}`),
      }))
    }
    expect(await surveyed('/usr/bin/chromium-headless-shell')).toEqual(await surveyed(peoplesBrowserPath))
  })
