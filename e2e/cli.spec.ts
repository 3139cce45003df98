/** `waybell` in a terminal, as a user runs it from a clone. */
import { expect, test } from '@playwright/test'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { browserPath } from './support/browsers.ts'
import { freshFolder, repository, waybell, waybellBuilt } from './support/cli.ts'
import { restlessPage, troubles } from './support/restless.ts'

const sound =
  '<!doctype html><meta charset=utf-8><title>T</title><nav><a href="#one">One</a> <a href="https://x.example/">X</a></nav>\n<section id=one><h2>One</h2><p>words</p></section>\n<section><h2>Two</h2><p>words</p></section>'

test('check prints one object, and exits with 1 on errors', async () => {
  const folder = freshFolder()
  writeFileSync(join(folder, 'sound.html'), sound)
  writeFileSync(join(folder, 'faulty.html'), sound.replace('#one', '#gone') + '<img src="lost.png">')
  const good = await waybell('check', join(folder, 'sound.html'), '--format', 'json')
  expect(good.code).toBe(0)
  expect(JSON.parse(good.stdout)).toEqual({
    file: join(folder, 'sound.html'),
    sections: [
      { id: 'one', title: 'One', line: 2, depth: 0 },
      { id: null, title: 'Two', line: 3, depth: 0 },
    ],
    links: [
      { href: '#one', line: 1, status: 'ok' },
      { href: 'https://x.example/', line: 1, status: 'outside' },
    ],
    findings: [],
  })
  const bad = await waybell('check', join(folder, 'faulty.html'), '--format', 'json')
  expect(bad.code).toBe(1)
  const { findings } = JSON.parse(bad.stdout) as { findings: { code: string; severity: string; line: number; column: number }[] }
  expect(findings.map((f) => [f.code, f.severity, f.line])).toEqual([
    ['link-broken', 'error', 1],
    ['asset-missing', 'warning', 3],
  ])
})

test('files that aren’t pages are reported in one line, with code 2, and nothing is written', async () => {
  const folder = freshFolder()
  for (const [name, content] of [
    ['empty.html', ''],
    ['text.html', 'only words'],
    ['deep.html', '<div>'.repeat(9000)],
    ['big.html', '<p>' + 'x'.repeat(20 * 1024 * 1024)],
  ] as const) {
    writeFileSync(join(folder, name), content)
    for (const args of [
      ['check', join(folder, name), '--format', 'json'],
      ['build', join(folder, name), '--out', join(folder, 'out')],
    ]) {
      const run = await waybell(...args)
      expect([name, run.code, run.stdout]).toEqual([name, 2, ''])
      expect(run.stderr.trim().split('\n')).toHaveLength(1)
    }
  }
  expect(existsSync(join(folder, 'out'))).toBe(false)
  expect((await waybell('check', join(folder, 'none.html'))).code).toBe(2)
})

test('build writes the page, its files, and the site', async () => {
  const folder = freshFolder()
  for (const dir of ['site/css', 'site/img', 'shared']) mkdirSync(join(folder, dir), { recursive: true })
  writeFileSync(
    join(folder, 'site/page.html'),
    sound.replace('<nav>', '<link rel=stylesheet href="css/a.css"><link rel=stylesheet href="../shared/s.css"><nav>') +
      '<img src="lost.png">',
  )
  writeFileSync(join(folder, 'site/css/a.css'), 'body { background: url(../img/b.png) }')
  writeFileSync(join(folder, 'site/img/b.png'), 'png')
  writeFileSync(join(folder, 'site/img/unused.png'), 'png')
  writeFileSync(join(folder, 'shared/s.css'), '/* shared */')
  const out = join(folder, 'out')
  const run = await waybell('build', join(folder, 'site/page.html'), '--out', out)
  expect(run.code).toBe(0)
  expect(run.stderr).toContain('missing: the page uses “lost.png”')
  expect(run.stderr).toContain('not copied: “../shared/s.css” lies outside')
  expect(readFileSync(join(out, 'img/b.png'), 'utf8')).toBe('png')
  expect(existsSync(join(out, 'css/a.css'))).toBe(true)
  expect(existsSync(join(out, 'img/unused.png'))).toBe(false)
  const site = JSON.parse(readFileSync(join(out, 'site.json'), 'utf8')) as {
    format: string
    pages: { file: string; sections: { id: string }[] }[]
  }
  expect([site.format, site.pages[0]!.file, site.pages[0]!.sections.map((s) => s.id)]).toEqual([
    'way-bell-site',
    'page.html',
    ['one', 'two'],
  ])
})

test('build without a browser says so, and the script measures on arrival', async ({ page }) => {
  const folder = freshFolder()
  const body = Array.from({ length: 5 }, (_, i) => `<section><h2>Part ${i}</h2>${'<p>words and more words</p>'.repeat(30)}</section>`).join(
    '',
  )
  writeFileSync(
    join(folder, 'a.html'),
    `<!doctype html><meta charset=utf-8><style>header{position:sticky;top:0;height:93px;background:#eee}</style><header><nav><a href="#">Part 1</a><a href="#">Part 3</a></nav></header>${body}`,
  )
  const run = await waybell('build', join(folder, 'a.html'), '--out', join(folder, 'out'), '--browser', '/no/such/browser')
  expect([run.code, run.stderr.includes('not measured: there is no browser at /no/such/browser')]).toEqual([0, true])
  await page.goto(`file://${join(folder, 'out/a.html')}`)
  await page.locator('nav a').last().click()
  await page.waitForTimeout(2000)
  expect(
    await page.evaluate(() => [
      getComputedStyle(document.documentElement).getPropertyValue('--wb-header'),
      Math.round(document.getElementById('part-3')!.getBoundingClientRect().top),
    ]),
  ).toEqual(['93px', 93 + 24])
})

test('legacy character sets and odd line ends are kept', async () => {
  const folder = freshFolder()
  const wide = Buffer.concat([
    Buffer.from([0xff, 0xfe]),
    Buffer.from('<title>Wide</title>\r\n<section><h2>Füße</h2></section>\r<section><h2>Два</h2></section>', 'utf16le'),
  ])
  writeFileSync(join(folder, 'wide.html'), wide)
  expect((await waybell('build', join(folder, 'wide.html'), '--out', join(folder, 'out'))).code).toBe(0)
  const built = readFileSync(join(folder, 'out/wide.html'))
  expect([...built.subarray(0, 2)]).toEqual([0xff, 0xfe])
  const text = built.toString('utf16le')
  expect(text).toContain('<section id="fusse"><h2>Füße</h2></section>\r<section id="dva">')
})

test('build tries every link, reports failures, and exits with 1', async () => {
  const out = freshFolder()
  const field = (name: string) => join(repository, 'e2e/pages/field', name, 'index.html')
  const good = await waybellBuilt('build', field('bakery'), '--out', out, '--format', 'json')
  expect(good.code, good.stderr).toBe(0)
  expect(good.stderr).toContain('links tried, all arrive')
  const report = JSON.parse(good.stdout) as {
    links: { screen: string; label: string; fault: string | null }[]
    menus: { items: object[] }[]
    arrivals: { screen: string; id: string; gap: number; shortfall: number }[]
  }
  expect(report.arrivals.filter((a) => a.id === 'cakes').map((a) => [a.screen, Math.round(a.gap), a.shortfall])).toEqual(
    ['laptop', 'phone', 'tablet', 'desk', 'phone-lying'].map((screen) => [screen, 24, 0]),
  )
  expect(report.links.map((l) => `${l.screen} ${l.label}`)).toEqual(
    ['laptop', 'phone', 'tablet', 'desk', 'phone-lying'].flatMap((screen) =>
      ['Bread', 'Cakes', 'Order', 'Visit'].map((label) => `${screen} ${label}`),
    ),
  )
  expect(report.menus[0]!.items[0]).toEqual({ label: 'Bread', target: '#bread', assumed: false })
  const lost = await waybellBuilt('build', field('hash-mix'), '--out', out)
  expect(lost.code).toBe(1)
  expect(lost.stderr).toContain('“Boathouse” (#boathouse) leads nowhere')
  // Problems in the source are reported without tries.
  const untried = await waybellBuilt('build', field('hash-mix'), '--out', out, '--no-try')
  expect([untried.code, untried.stderr.includes('error link-broken')]).toEqual([1, true])
})

test('several pages are built in one browser, each into its folder', async () => {
  const folder = freshFolder()
  for (const name of ['one', 'two']) {
    mkdirSync(join(folder, name))
    writeFileSync(join(folder, name, 'index.html'), sound.replace('>T<', `>${name}<`))
  }
  const out = join(folder, 'out')
  const pages = ['one', 'two'].map((name) => join(folder, name, 'index.html'))
  const run = await waybellBuilt('build', ...pages, '--out', out, '--browser', browserPath, '--format', 'json')
  const reports = JSON.parse(run.stdout) as { file: string; links: { fault: string | null }[] }[]
  expect(reports.map((r) => r.file)).toEqual(['one', 'two'].map((name) => join(out, name, 'index.html')))
  for (const { file, links } of reports) {
    expect(existsSync(file)).toBe(true)
    expect(links.filter((l) => l.fault)).toEqual([])
  }
})

test('links that arrive although the layout changes meanwhile count as right, with a note', async () => {
  // The kiln's pictures appear by a timer: if all were there when it was measured, nothing is laid out late.
  for (const [name, told] of [
    ['swimming', /“Being late” arrives, but /],
    ['kiln', /^$|“Shop” arrives, but /],
  ] as const) {
    const run = await waybellBuilt(
      'build',
      join(repository, 'e2e/pages/field', name, 'index.html'),
      '--out',
      join(freshFolder(), 'out'),
      '--format',
      'json',
    )
    const { links, findings } = JSON.parse(run.stdout) as {
      links: { label: string; fault: string | null }[]
      findings: { code: string; severity: string; message: string }[]
    }
    expect([name, run.code, links.length, links.filter((l) => l.fault)]).toEqual([name, 0, 20, []])
    const drifts = findings.filter((f) => f.code === 'link-drifts')
    expect(drifts.map((f) => f.message).join('\n')).toMatch(told)
    expect(drifts.every((f) => f.severity === 'note')).toBe(true)
  }
})

const restless = (n: number, script: string): string => {
  const folder = join(freshFolder(), String(n))
  mkdirSync(folder)
  const file = join(folder, 'index.html')
  writeFileSync(file, restlessPage(script))
  return file
}

interface Restless {
  file: string
  links: unknown[] | null
  arrivals: unknown[]
  findings: { code: string; message: string }[]
}

for (const [name, script, said] of troubles)
  test(`a page that cannot be measured is said to be so, is handed over all the same, and keeps no other waiting: ${name}`, async () => {
    const files = [restless(0, script), restless(1, 'alert("a dialog"); print()')]
    const run = await waybellBuilt('build', ...files, '--out', freshFolder(), '--format', 'json')
    expect(run.code).toBe(1)
    const [left, well] = JSON.parse(run.stdout) as [Restless, Restless]
    const told = left.findings.filter((f) => f.code === 'not-measured')
    expect(told).toHaveLength(1)
    expect(told[0]!.message).toMatch(said)
    expect(run.stderr).toContain(told[0]!.message)
    expect(readFileSync(left.file, 'utf8')).toContain('data-wb="style"')
    expect(well.findings.filter((f) => f.code === 'not-measured')).toEqual([])
    expect(well.arrivals.length).toBeGreaterThan(0)
    expect(well.links).toHaveLength(10)
  })
