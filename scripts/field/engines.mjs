/* global history, innerWidth, innerHeight */
/**
 * Browsers of each engine behind one interface: Debian's Chromium, Firefox over WebDriver BiDi, and WebKitGTK over WebDriver on a
 * virtual display. Firefox and WebKit are installed on demand.
 */
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { ensureBrowser, ensureDebian } from '../ensure.mjs'

const wait = (ms) => new Promise((done) => setTimeout(done, ms))

/**
 * @typedef {object} Tab
 * @property {(url: string) => Promise<void>} open resolves once loaded
 * @property {(fn: Function, arg?: unknown) => Promise<any>} evaluate in the page; returns plain data
 * @property {(x: number, y: number) => Promise<void>} press with the mouse, in px of the viewport
 * @property {(x: number, y: number) => Promise<void>} move
 * @property {(dy: number) => Promise<void>} wheel in px
 * @property {() => Promise<void>} back
 * @property {() => Promise<void>} forward
 * @property {() => Promise<void>} reload
 */

/** @returns {Promise<{ version: string, tab: (width: number, height: number) => Promise<Tab>, close: () => Promise<void> }>} */
export const openEngine = (name) => engines[name]()

export const engines = { chromium, firefox, webkit }

async function chromium() {
  ensureBrowser()
  const { chromium } = await import('@playwright/test')
  const executablePath = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium'
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
  let context
  return {
    version: browser.version(),
    async tab(width, height) {
      await context?.close()
      context = await browser.newContext({ viewport: { width, height } })
      const page = await context.newPage()
      const started = () => page.waitForLoadState('load')
      return {
        open: (url) => page.goto(url, { waitUntil: 'load' }),
        evaluate: (fn, arg) => page.evaluate(fn, arg),
        press: (x, y) => page.mouse.click(x, y),
        move: (x, y) => page.mouse.move(x, y),
        wheel: (dy) => page.mouse.wheel(0, dy),
        back: () => page.evaluate(() => history.back()).then(started),
        forward: () => page.evaluate(() => history.forward()).then(started),
        reload: () => page.reload({ waitUntil: 'load' }),
      }
    },
    close: () => browser.close(),
  }
}

async function firefox() {
  ensureDebian('/usr/bin/firefox-esr', ['firefox-esr'])
  const { default: puppeteer } = await import('puppeteer-core')
  const browser = await puppeteer.launch({ browser: 'firefox', executablePath: '/usr/bin/firefox-esr', headless: true })
  let page
  return {
    version: await browser.version(),
    async tab(width, height) {
      const fresh = async () => {
        const last = page
        page = await browser.newPage()
        await last?.close()
        await page.setViewport({ width, height })
      }
      await fresh()
      return {
        // The library loses pages that return from the cache; a new tab works.
        open: (url) => (url === 'about:blank' ? fresh() : page.goto(url, { waitUntil: 'load', timeout: 30_000 })),
        evaluate: (fn, arg) => page.evaluate(fn, arg),
        press: (x, y) => page.mouse.click(x, y),
        move: (x, y) => page.mouse.move(x, y),
        wheel: (deltaY) => page.mouse.wheel({ deltaY }),
        back: () => page.evaluate(() => history.back()),
        forward: () => page.evaluate(() => history.forward()),
        reload: () => page.reload({ waitUntil: 'load' }),
      }
    },
    close: () => browser.close(),
  }
}

/** A free port. */
const freePort = () =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => done(port))
    })
  })

async function webkit() {
  const library = '/usr/lib/x86_64-linux-gnu/webkit2gtk-4.1/MiniBrowser'
  ensureDebian('/usr/bin/WebKitWebDriver', ['webkit2gtk-driver'])
  ensureDebian('/usr/bin/Xvfb', ['xvfb'])
  const { Builder, Capabilities, logging } = await import('selenium-webdriver')
  logging.getLogger('webdriver.http').setLevel(logging.Level.OFF)
  // It reports its display number.
  const screen = spawn('Xvfb', ['-displayfd', '3', '-screen', '0', '2000x1400x24'], { stdio: ['ignore', 'ignore', 'ignore', 'pipe'] })
  const display = await new Promise((done) => screen.stdio[3].once('data', (chunk) => done(String(chunk).trim())))
  const port = await freePort()
  const env = { ...process.env, DISPLAY: `:${display}`, NO_AT_BRIDGE: '1', GTK_OVERLAY_SCROLLING: '1', LIBGL_ALWAYS_SOFTWARE: '1' }
  const driver = spawn('WebKitWebDriver', [`--port=${port}`], { stdio: 'ignore', env })
  const children = [driver, screen]
  const end = () => children.forEach((child) => child.kill())
  process.on('exit', end)
  await wait(1000)
  const session = await new Builder()
    .usingServer(`http://127.0.0.1:${port}`)
    .withCapabilities(
      new Capabilities({ browserName: 'MiniBrowser', 'webkitgtk:browserOptions': { binary: library, args: ['--automation'] } }),
    )
    .build()
  const evaluate = async (fn, arg) => {
    const result = await session.executeAsyncScript(
      `const done = arguments[1]; Promise.resolve().then(() => (${fn})(arguments[0])).then((value) => done({ value }), (error) => done({ error: String(error) }))`,
      arg ?? null,
    )
    if (result.error) throw new Error(result.error)
    return result.value ?? undefined
  }
  await session.manage().setTimeouts({ script: 30_000, pageLoad: 30_000 })
  return {
    version: (await session.getCapabilities()).getBrowserVersion(),
    async tab(width, height) {
      await session.get('about:blank')
      const window = session.manage().window()
      await window.setRect({ x: 0, y: 0, width, height: height + 60 })
      await wait(300)
      // The window's borders.
      const [w, h] = await evaluate(() => [innerWidth, innerHeight])
      await window.setRect({ x: 0, y: 0, width: width + (width - w), height: height + 60 + (height - h) })
      await wait(300)
      const mouse = () => session.actions({ async: true })
      let at = { x: 3, y: 300 }
      return {
        open: (url) => session.get(url),
        evaluate,
        press: (x, y) => mouse().move({ x, y, duration: 0 }).click().perform(),
        move: (x, y) => {
          at = { x, y }
          return mouse().move({ x, y, duration: 0 }).perform()
        },
        wheel: (dy) => mouse().scroll(at.x, at.y, 0, dy).perform(),
        back: () => evaluate(() => void setTimeout(() => history.back())),
        forward: () => evaluate(() => void setTimeout(() => history.forward())),
        reload: () => session.navigate().refresh(),
      }
    },
    async close() {
      // One that hangs answers nothing.
      await Promise.race([session.quit().catch(() => {}), wait(5000)])
      end()
    },
  }
}
