/** A handed-over page for visitors: zoom, text sizes and screens, forced colours, print, late pictures, back/forward cache. */
import AxeBuilder from '@axe-core/playwright'
import { chromium, expect, test, type BrowserContextOptions, type Page } from '@playwright/test'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge, scrollTo } from './support/boxes.ts'
import { peoplesBrowserPath } from './support/browsers.ts'
import { freshFolder, handedOver, repository, waybellBuilt } from './support/cli.ts'

const words = (n: number) => '<p>Words that take some room on the page. </p>'.repeat(n)
const parts = ['garden', 'kitchen', 'cellar', 'attic']
const links = parts.map((id) => `<a href="#${id}">${id}</a>`).join(' ')
const sections = (before = '') =>
  parts.map((id) => `${id === 'cellar' ? before : ''}<section id="${id}"><h2>About the ${id}</h2>${words(24)}</section>`).join('')

/** A header that scrolls away unless it's kept. */
const kept = `<!doctype html><html lang=en><meta name=viewport content="width=device-width"><title>House</title><style>body{margin:0;font:16px/1.5 sans-serif}header{padding:22px 16px;background:#fff}section{padding:40px 16px}</style><header><b>House</b> <nav>${links}</nav></header><main><section><h1>A house</h1>${words(6)}</section>${sections()}</main>`
/** In relative lengths, which follow the visitor's text size. */
const relative = kept.replace('16px/1.5', '1rem/1.5').replace('padding:22px 16px', 'padding:1.4rem 1rem')
/** Without a menu: one is made. */
const bare = `<!doctype html><html lang=en><title>House</title><style>body{margin:0;font:16px/1.5 sans-serif}section{padding:40px 16px}</style><main>${sections()}</main>`
/** A picture without size above the target. */
const pictured = kept.replace(sections(), sections('<img src="late.svg" alt="A plan">'))

let server: Server
let address = ''
const folders = new Map<string, string>()

test.describe('visitors', () => {
  test.describe.configure({ mode: 'serial' })
  test.beforeAll(async () => {
    for (const [name, source] of Object.entries({ kept, relative, bare, pictured })) {
      const from = freshFolder()
      writeFileSync(join(from, 'index.html'), source)
      writeFileSync(join(from, 'late.svg'), '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="700"/>')
      const out = freshFolder()
      await waybellBuilt('build', join(from, 'index.html'), '--out', out, '--no-try')
      folders.set(name, out)
      folders.set(`${name}~before`, from)
    }
    folders.set('demo~before', join(repository, 'demo/ostrey'))
    folders.set('demo', dirname(await handedOver(join(repository, 'demo/ostrey/index.html'))))
    server = createServer((request, response) => {
      const [, name = '', file = ''] = decodeURIComponent(request.url!.split('?')[0]!).split('/')
      const send = () => {
        try {
          const bytes = readFileSync(join(folders.get(name) ?? '', file || 'index.html'))
          response.writeHead(200, {
            'content-type': file.endsWith('.svg') ? 'image/svg+xml' : file.endsWith('.css') ? 'text/css' : 'text/html',
          })
          response.end(bytes)
        } catch {
          response.writeHead(404).end()
        }
      }
      if (file === 'late.svg') setTimeout(send, 900)
      else send()
    })
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
    address = `http://127.0.0.1:${(server.address() as { port: number }).port}`
  })
  test.afterAll(() => void server.close())

  /** Distance of a section's heading below the cover; negative if covered. */
  const clear = async (page: Page, id: string) =>
    (await page.evaluate((name) => document.getElementById(name)!.querySelector('h2')!.getBoundingClientRect().top, id)) -
    (await coveredEdge(page))

  const screens: [string, BrowserContextOptions][] = [
    ['a scale of 1.25', { viewport: { width: 1280, height: 800 }, deviceScaleFactor: 1.25 }],
    ['a scale of 2', { viewport: { width: 390, height: 844 }, deviceScaleFactor: 2 }],
    ['a zoom of 150%', { viewport: { width: 853, height: 533 }, deviceScaleFactor: 1.5 }],
    ['a zoom of 200%', { viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 }],
    ['320 px', { viewport: { width: 320, height: 640 } }],
    ['a phone that lies', { viewport: { width: 844, height: 390 } }],
    ['less motion', { viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' }],
  ]
  for (const [name, options] of screens)
    test(`with ${name} every link arrives below what covers the top`, async ({ browser }) => {
      for (const site of /200%|lies/.test(name) ? ['kept', 'bare'] : ['kept']) {
        const context = await browser.newContext(options)
        const page = await context.newPage()
        await page.goto(`${address}/${site}/`)
        await atRest(page)
        for (const id of parts) {
          await page
            .locator(`[data-wb-menu] a[href="#${id}"]`)
            .first()
            .evaluate((a: HTMLElement) => a.click())
          await page.waitForTimeout(150)
          await atRest(page)
          const room = await clear(page, id)
          const isEnd = await page.evaluate(() => scrollY >= document.documentElement.scrollHeight - innerHeight - 2)
          expect(room, `${site} #${id}`).toBeGreaterThan(0)
          if (!isEnd) expect(room, `${site} #${id}`).toBeLessThan(140)
          expect(await page.evaluate(() => [...document.querySelectorAll('[aria-current]')].map((a) => a.getAttribute('href')))).toEqual([
            `#${id}`,
          ])
        }
        await context.close()
      }
    })

  test('text at 200% arrives too, by style and browser setting: the header has its real height', async ({ page }) => {
    const arrive = async (on: Page) => {
      await on.locator('[data-wb-menu] a[href="#kitchen"]').click()
      await atRest(on)
      expect(await clear(on, 'kitchen')).toBeGreaterThan(0)
    }
    await page.goto(`${address}/kept/`)
    await page.evaluate(() => (document.body.style.fontSize = '200%'))
    await page.waitForTimeout(300)
    await arrive(page)
    const profile = freshFolder()
    mkdirSync(join(profile, 'Default'))
    writeFileSync(join(profile, 'Default/Preferences'), JSON.stringify({ webkit: { webprefs: { default_font_size: 32 } } }))
    const set = await chromium.launchPersistentContext(profile, {
      executablePath: peoplesBrowserPath,
      args: ['--no-sandbox', '--disable-gpu'],
    })
    const large = await set.newPage()
    await large.goto(`${address}/relative/`)
    expect(await large.evaluate(() => getComputedStyle(document.body).fontSize)).toBe('32px')
    await arrive(large)
    // Without script too, arriving by address.
    await large.goto('about:blank')
    await (await set.newCDPSession(large)).send('Emulation.setScriptExecutionDisabled', { value: true })
    await large.goto(`${address}/relative/#kitchen`)
    expect(await clear(large, 'kitchen')).toBeGreaterThan(0)
    await set.close()
  })

  test('a header that is kept in view lets go where it would take more than a sixth of the height', async ({ browser }) => {
    for (const [height, position] of [
      [800, 'sticky'],
      [300, 'static'],
    ] as const) {
      const page = await browser.newPage({ viewport: { width: 1280, height } })
      await page.goto(`${address}/kept/`)
      await atRest(page)
      expect(await page.evaluate(() => getComputedStyle(document.querySelector('header')!).position)).toBe(position)
      // Without script too: the style's height is the real one.
      const said = await page.evaluate(() => {
        document.documentElement.style.removeProperty('--wb-header')
        return parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--wb-header'))
      })
      expect(said > 0).toBe(position === 'sticky')
      await page.close()
    }
  })

  test('on an unmeasured screen the header is found all the same', async ({ browser }) => {
    // Without a browser nothing is measured: the style has an estimate, and the script measures.
    const out = freshFolder()
    const source = join(repository, 'e2e/pages/field/two-bars/index.html')
    const run = await waybellBuilt('build', source, '--out', out, '--browser', '/nowhere')
    expect(run.stderr).toContain('not measured')
    for (const [viewport, height] of [
      [{ width: 390, height: 844 }, 64],
      [{ width: 820, height: 1180 }, 64],
      [{ width: 1280, height: 800 }, 79],
    ] as const) {
      const page = await browser.newPage({ viewport, reducedMotion: 'reduce' })
      await page.goto(pathToFileURL(join(out, 'index.html')).href)
      await atRest(page)
      await page.locator('a[href="#table"]:visible').click()
      await atRest(page)
      const covered = await coveredEdge(page)
      expect(Math.abs(covered - height)).toBeLessThan(2)
      const top = await page.evaluate(() => document.getElementById('table')!.getBoundingClientRect().top)
      expect(Math.abs(top - covered - 24), `at ${viewport.width} px: ${top}`).toBeLessThanOrEqual(1)
      await page.close()
    }
  })

  test('nothing written fails axe', async ({ page }) => {
    const violations = async (url: string) => {
      await page.goto(url)
      await atRest(page)
      const found = await new AxeBuilder({ page }).analyze()
      return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)
    }
    for (const name of ['kept', 'bare', 'demo']) {
      const before = await violations(`${address}/${name}~before/index.html`)
      expect(await violations(`${address}/${name}/index.html`), name).toEqual(before)
    }
  })

  test('the current item is visible in forced colours', async ({ browser }) => {
    for (const site of ['kept', 'bare', 'demo']) {
      const page = await browser.newPage({ forcedColors: 'active', viewport: { width: 1280, height: 800 } })
      await page.goto(`${address}/${site}/`)
      await scrollTo(page, 900)
      await atRest(page)
      // Lines are drawn there; colours, backgrounds and shadows aren't.
      const looks = await page.evaluate(() => {
        const lineOf = (a: Element) => {
          const { outlineStyle, outlineWidth, textDecorationLine, textDecorationThickness } = getComputedStyle(a)
          const outline = outlineStyle === 'solid' ? outlineWidth : ''
          return `${outline} ${textDecorationLine === 'underline' ? textDecorationThickness : ''}`.trim()
        }
        return [...document.querySelectorAll('[data-wb-menu]')].map((menu) => {
          const links = [...menu.querySelectorAll('a')]
          const isCurrent = (a: Element) => a.getAttribute('aria-current') === 'true'
          return { current: links.filter(isCurrent).map(lineOf), others: links.filter((a) => !isCurrent(a)).map(lineOf) }
        })
      })
      const marked = looks.filter(({ current }) => current.length)
      expect(marked.length, site).toBeGreaterThan(0)
      for (const { current, others } of marked)
        for (const line of current) {
          expect(line, site).toContain('2px')
          expect(others, site).not.toContain(line)
        }
      await page.close()
    }
  })

  test('in print there are no extra pages, and the bar appears once', async ({ page }) => {
    const pages = async (url: string) => {
      await page.goto(url)
      return (await page.pdf()).toString('latin1').match(/\/Type\s*\/Page\b/g)!.length
    }
    const from = freshFolder()
    writeFileSync(join(from, 'index.html'), bare)
    folders.set('before', from)
    expect(await pages(`${address}/bare/`)).toBeLessThanOrEqual(await pages(`${address}/before/`))
    await page.goto(`${address}/bare/`)
    await page.emulateMedia({ media: 'print' })
    expect(await page.evaluate(() => getComputedStyle(document.querySelector('[data-wb="menu"]')!).position)).toBe('static')
  })

  test('late pictures above it leave the target in place, in every frame', async ({ page }) => {
    await page.addInitScript(() => {
      const seen: number[] = ((window as unknown as { tops: number[] }).tops = [])
      const look = () => {
        const el = document.getElementById('attic')
        if (el && document.readyState !== 'loading') seen.push(el.getBoundingClientRect().top)
        requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    })
    await page.emulateMedia({ reducedMotion: 'reduce' })
    await page.goto(`${address}/pictured/#attic`, { waitUntil: 'domcontentloaded' })
    await page.waitForTimeout(500)
    expect(await page.evaluate(() => document.images[0]!.complete)).toBe(false)
    const before = await page.evaluate(() => (window as unknown as { tops: number[] }).tops.splice(0).at(-1)!)
    await page.waitForFunction(() => document.images[0]!.naturalHeight > 0)
    await page.waitForTimeout(600)
    const after = await page.evaluate(() => (window as unknown as { tops: number[] }).tops)
    expect(after.length).toBeGreaterThan(10)
    expect(Math.max(...after.map((top) => Math.abs(top - before)))).toBeLessThanOrEqual(1)
    expect(await clear(page, 'attic')).toBeGreaterThan(0)
  })

  test('a page from the back/forward cache keeps its position', async () => {
    const own = await chromium.launch({
      executablePath: peoplesBrowserPath,
      args: ['--no-sandbox', '--disable-gpu'],
      ignoreDefaultArgs: ['--disable-back-forward-cache'],
    })
    try {
      const page = await own.newPage()
      await page.goto(`${address}/kept/`)
      await page.evaluate(() => addEventListener('pageshow', (e) => Object.assign(window, { persisted: e.persisted })))
      await page.locator('[data-wb-menu] a[href="#kitchen"]').click()
      await atRest(page)
      await scrollTo(page, (await page.evaluate(() => scrollY)) + 170)
      await page.waitForTimeout(400)
      const left = await page.evaluate(() => scrollY)
      await page.goto(`${address}/bare/`)
      // Playwright's own waiting doesn't handle the back/forward cache.
      await page.evaluate(() => void setTimeout(() => history.back()))
      await page.waitForTimeout(1500)
      expect(await page.evaluate(() => [(window as unknown as { persisted?: boolean }).persisted, scrollY])).toEqual([true, left])
    } finally {
      await own.close()
    }
  })
})
