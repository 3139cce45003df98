/** A page that tries to reach the application or the network fails, with and without its scripts. */
import { expect, test } from '@playwright/test'
import { createSocket } from 'node:dgram'
import { mkdtempSync, readFileSync } from 'node:fs'
import { createServer, type Server as HttpServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { launchOf, peoplesBrowserPath } from './support/browsers.ts'
import { Server, setUp, task } from './support/server.ts'

const hostile = (listener: string, app: string) => `<!doctype html><html><head><title>Hostile</title>
<meta http-equiv="refresh" content="1; url=${listener}/refresh">
<link rel="stylesheet" href="${listener}/style.css"><link rel="preload" as="image" href="${listener}/preload.png"><link rel="dns-prefetch" href="${listener}"><link rel="prefetch" href="${listener}/prefetch">
<style>@import url("${listener}/import.css"); body { background: url("${listener}/background.png") } @font-face { font-family: x; src: url("${listener}/font.woff2") } h1 { font-family: x }</style>
</head><body>
<section><h1>One</h1><p>words</p><img src="${listener}/picture.png"><iframe src="${listener}/frame"></iframe><object data="${listener}/object"></object><video src="${listener}/video"></video>
<form id="f" action="${listener}/form" method="post" target="_top"><input name="a" value="b"></form><a id="top" href="${app}/api/sites" target="_top">t</a><a id="ping" href="#two" ping="${listener}/ping">p</a></section>
<section id="two"><h2>Two</h2><p>words</p></section>
<script>
const tries = {}
const attempt = (name, f) => { try { const r = f(); if (r && r.then) r.then(() => (tries[name] = 'reached'), () => (tries[name] = 'stopped')); else tries[name] = r === undefined ? 'ran' : String(r) } catch (e) { tries[name] = 'stopped' } }
attempt('parent document', () => parent.document.title)
attempt('parent location', () => parent.location.href)
attempt('fetch api', () => fetch('${app}/api/sites'))
attempt('fetch api by path', () => fetch('/api/sites').then((r) => r.json()))
attempt('fetch away', () => fetch('${listener}/fetch', { mode: 'no-cors' }))
attempt('beacon', () => navigator.sendBeacon('${listener}/beacon', 'x'))
attempt('xhr', () => { const x = new XMLHttpRequest(); x.open('GET', '${listener}/xhr'); x.send() })
attempt('socket', () => { new WebSocket('${listener.replace('http', 'ws')}/socket') })
attempt('events', () => { new EventSource('${listener}/events') })
attempt('image', () => { new Image().src = '${listener}/image' })
attempt('script', () => { const s = document.createElement('script'); s.src = '${listener}/script.js'; document.head.append(s) })
attempt('worker', () => { new Worker(URL.createObjectURL(new Blob(['fetch("${listener}/worker", { mode: "no-cors" })']))) })
attempt('post message', () => { parent.postMessage({ wayBell: window.name, type: 'survey' }, '*') })
attempt('rtc', () => { new RTCPeerConnection({ iceServers: [{ urls: 'stun:${listener.replace('http://', '')}' }] }).createDataChannel('x') })
setTimeout(() => attempt('form', () => document.getElementById('f').submit()), 300)
setTimeout(() => attempt('click', () => document.getElementById('top').click()), 400)
setTimeout(() => attempt('ping', () => document.getElementById('ping').click()), 500)
setTimeout(() => attempt('open', () => { window.open('${listener}/open') }), 600)
setTimeout(() => attempt('top', () => { top.location = '${listener}/top' }), 700)
setTimeout(() => attempt('location', () => { location = '${listener}/location' }), 800)
setTimeout(() => attempt('application', () => { location = '${app}/api/sites' }), 900)
window.tries = tries
</script></body></html>`

test.use({ launchOptions: launchOf(peoplesBrowserPath) })

test.describe('a hostile page', () => {
  let server: Server
  let listener: HttpServer
  const heard: string[] = []

  test.beforeAll(async () => {
    server = await new Server().start()
    listener = createServer((request, response) => {
      heard.push(`${request.method} ${request.url}`)
      response.end('x')
    })
    await new Promise<void>((done) => listener.listen(0, '127.0.0.1', done))
    // Connections that don't speak HTTP count too.
    listener.on('connection', () => heard.push('connection'))
  })
  test.afterAll(async () => {
    listener.close()
    await server.stop()
  })

  test('gets nowhere', async ({ page, context }) => {
    const { port } = listener.address() as AddressInfo
    const before = await context.cookies()
    await page.goto(server.address)
    await page.getByTestId('files').setInputFiles({
      name: 'index.html',
      mimeType: 'text/html',
      buffer: Buffer.from(hostile(`http://127.0.0.1:${port}`, server.address)),
    })
    await expect(page.getByRole('heading', { name: 'Hostile' })).toBeVisible()
    await page.waitForTimeout(4000)
    const address = page.url()
    expect(address).toContain(server.address)
    const frame = page.frames().find((f) => f.url().includes('.localhost'))!
    const tries = await frame.evaluate(() => (window as unknown as { tries: Record<string, string> }).tries)
    for (const name of ['parent document', 'parent location', 'fetch api', 'fetch api by path', 'fetch away', 'rtc'])
      expect(tries[name], name).toBe('stopped')
    // It can still be worked on.
    await setUp(page)
    await page.getByLabel('Page’s own scripts').uncheck()
    await page.waitForTimeout(3000)
    await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(5, { timeout: 120_000 })
    const still = page.frames().find((f) => f.url().includes('--still.localhost'))!
    expect(await still.evaluate(() => 'tries' in window)).toBe(false)
    expect(page.url()).toContain(server.address)
    expect(await context.cookies()).toEqual(before)
    expect(context.pages()).toHaveLength(1)
    expect(heard).toEqual([])
  })

  test('no WebRTC call and no early connection gets out, in a browser as people have it', async ({ playwright }) => {
    const { port } = listener.address() as AddressInfo
    const calls = createSocket('udp4')
    const called: number[] = []
    calls.on('message', (message) => called.push(message.length))
    await new Promise<void>((done) => calls.bind(0, '127.0.0.1', done))
    const calling = (address: number) => `<!doctype html><title>Calling</title><link rel="preconnect" href="http://127.0.0.1:${port}">
<link rel="dns-prefetch" href="//markup.looked-up.example"><section id="a"><h2>A</h2><p>words</p></section><section id="b"><h2>B</h2></section><iframe id="inner"></iframe><script>
window.tries = []
function call(kind, from) { try { const peer = new (from().RTCPeerConnection)({ iceServers: [{ urls: 'stun:127.0.0.1:${address}' }, { urls: 'turn:127.0.0.1:${port}?transport=tcp', username: 'a', credential: 'b' }] }); peer.createDataChannel('x'); peer.createOffer().then((offer) => peer.setLocalDescription(offer)); tries.push(kind + ' made') } catch (error) { tries.push(kind + ' ' + error.name) } }
call('own', () => window)
call('inner', () => document.getElementById('inner').contentWindow)
call('document', () => document.getElementById('inner').contentDocument.defaultView)
const made = document.body.appendChild(document.createElement('iframe'))
call('made', () => made.contentWindow)
for (const rel of ['preconnect', 'dns-prefetch']) for (const href of ['http://127.0.0.1:${port}', '//script.looked-up.example']) document.head.append(Object.assign(document.createElement('link'), { rel, href }))
</script>`
    heard.length = 0
    const netLog = join(mkdtempSync(join(tmpdir(), 'waybell-net-')), 'log.json')
    const open = (...args: string[]) =>
      playwright.chromium.launchPersistentContext(mkdtempSync(join(tmpdir(), 'waybell-profile-')), {
        executablePath: peoplesBrowserPath,
        args: ['--no-sandbox', ...args],
        // As people have it: without Playwright's switches.
        ignoreDefaultArgs: ['--disable-background-networking', '--disable-component-extensions-with-background-pages'],
      })
    const browser = await open(`--log-net-log=${netLog}`)
    try {
      const page = await browser.newPage()
      await page.goto(server.address)
      await page.getByTestId('files').setInputFiles({
        name: 'index.html',
        mimeType: 'text/html',
        buffer: Buffer.from(calling((calls.address() as AddressInfo).port)),
      })
      await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(5, { timeout: 120_000 })
      await page.waitForTimeout(3000)
      const frame = page.frames().find((f) => f.url().includes('.localhost'))!
      const tries = await frame.evaluate(() => (window as unknown as { tries: string[] }).tries)
      expect(tries).toEqual(['own TypeError', 'inner TypeError', 'document TypeError', 'made TypeError'])
      expect([heard, called]).toEqual([[], []])
      await browser.close()
      const logged = readFileSync(netLog, 'utf8')
      expect(logged).toContain(new URL(server.address).host)
      expect(logged).not.toContain('looked-up')
      // The listener would have heard them.
      const control = createServer((_, response) =>
        response.setHeader('Content-Type', 'text/html').end(calling((calls.address() as AddressInfo).port)),
      )
      await new Promise<void>((done) => control.listen(0, '127.0.0.1', done))
      const controlLog = netLog.replace('log', 'control')
      const other = await open(`--log-net-log=${controlLog}`)
      await (await other.newPage()).goto(`http://127.0.0.1:${(control.address() as AddressInfo).port}/`)
      await expect.poll(() => called.length).toBeGreaterThan(0)
      expect(heard).toContain('connection')
      await other.close()
      expect(readFileSync(controlLog, 'utf8')).toContain('looked-up')
      control.close()
    } finally {
      await browser.close()
      calls.close()
      heard.length = 0
    }
  })

  test('the page has its own history, not the tab’s', async ({ page }) => {
    await page.goto(server.address)
    const before = await page.evaluate(() => history.length)
    await page.getByTestId('files').setInputFiles({
      name: 'index.html',
      mimeType: 'text/html',
      buffer:
        Buffer.from(`<!doctype html><title>Past</title><section id="a"><h2>A</h2><p>words</p></section><section id="b"><h2>B</h2></section><script>
for (let i = 1; i <= 30; i++) history.pushState({ i }, '', '?step=' + i)
// Before a page is loaded a browser replaces the entry instead.
addEventListener('load', () => { for (let i = 1; i <= 5; i++) setTimeout(() => (location.hash = 'h' + i), 50 * i); setTimeout(() => history.go(-6), 600) })
window.states = []
addEventListener('popstate', (event) => states.push(event.state && event.state.i))
localStorage.setItem('kept', 'yes')
localStorage.other = 'too'
window.kept = [localStorage.getItem('kept'), localStorage.other, localStorage.length, Object.keys(localStorage).join(), localStorage.getItem('none')]
const opened = indexedDB.open('base', 1)
opened.onupgradeneeded = () => opened.result.createObjectStore('things').put({ deep: [1, 2] }, 'first')
opened.onsuccess = () => (opened.result.transaction('things').objectStore('things').get('first').onsuccess = (event) => kept.push(event.target.result.deep.join()))
caches.open('pictures').then((cache) => cache.put('/one', new Response('kept'))).then(() => caches.match('/one')).then((found) => found.text()).then((text) => kept.push(text))
</script>`),
    })
    await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(5, { timeout: 120_000 })
    const frame = page.frames().find((f) => f.url().includes('.localhost'))!
    const told = () =>
      frame.evaluate(() => {
        const { states, kept } = window as unknown as { states: unknown[]; kept: unknown[] }
        return [states.length, kept.length]
      })
    await expect.poll(told).toEqual([6, 7])
    const { states, length, kept } = await frame.evaluate(() => ({
      ...(window as unknown as { states: unknown[]; kept: unknown[] }),
      length: history.length,
    }))
    // As a visitor's browser reports it.
    expect([states, length]).toEqual([[null, null, null, null, null, 29], 36])
    expect(frame.url()).toContain('?step=29')
    expect(kept.slice(0, 5)).toEqual(['yes', 'too', 2, 'kept,other', null])
    expect(kept.slice(5).sort()).toEqual(['1,2', 'kept'])
    expect(await page.evaluate(() => history.length)).toBeLessThanOrEqual(before + 1)
    await page.goBack({ waitUntil: 'commit' })
    await expect(page).toHaveURL(server.address + '/')
  })

  for (const [by, flood] of [
    ['messages to the application', `setInterval(() => { for (let i = 0; i < 3000; i++) parent.postMessage({ wayBell: i }, '*') }, 0)`],
    [
      'the agent’s own line',
      `const post = MessagePort.prototype.postMessage; let line; MessagePort.prototype.postMessage = function (...given) { line = this; return post.apply(this, given) }
for (const name of ['ports', 'data']) { const own = Object.getOwnPropertyDescriptor(MessageEvent.prototype, name); Object.defineProperty(MessageEvent.prototype, name, { get() { const got = own.get.call(this); if (name === 'ports' && got[0]) line = got[0]; return got } }) }
window.taken = () => line !== undefined
setInterval(() => { for (let i = 0; i < 3000; i++) { dispatchEvent(new PointerEvent('pointermove')); if (line) post.call(line, { type: 'scrolled', y: i }) } }, 0)`,
    ],
  ] as const)
    test(`a page that floods ${by} keeps nothing waiting`, async ({ page }, { annotations }) => {
      await page.addInitScript(() => {
        const answers: number[] = []
        Object.assign(window, { answers, loud: 0 })
        addEventListener('message', ({ data }: MessageEvent<{ isLoud?: true }>) => {
          if (data.isLoud) (window as unknown as { loud: number }).loud++
        })
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) if (entry.name === 'click') answers.push(entry.duration)
        }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit)
      })
      await page.goto(server.address)
      await page.getByTestId('files').setInputFiles({
        name: 'index.html',
        mimeType: 'text/html',
        buffer: Buffer.from(
          `<!doctype html><title>Loud</title><section id="a"><h2>A</h2><p>words</p></section><section id="b"><h2>B</h2></section><script>${flood}
setInterval(() => { alert('x'); confirm('y'); print() }, 5)</script>`,
        ),
      })
      await expect(page.getByRole('heading', { name: 'Loud' })).toBeVisible({ timeout: 30_000 })
      for (const name of ['Menus', 'Travel', 'Sections']) await task(page, name)
      if (by === 'messages to the application') {
        await expect(page.getByRole('alert').getByText('sends endless messages')).toBeVisible({ timeout: 20_000 })
        // Stopped at its source: its messages would fill the browser's queue before the application could react.
        await expect.poll(() => page.evaluate(() => (window as unknown as { loud: number }).loud)).toBeGreaterThan(0)
        await page.getByRole('button', { name: 'Open it without its scripts' }).click()
      } else {
        const frame = page.frames().find((f) => f.url().includes('.localhost'))!
        await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(5, { timeout: 120_000 })
        expect(await frame.evaluate(() => (window as unknown as { taken: () => boolean }).taken())).toBe(false)
      }
      await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(5, { timeout: 120_000 })
      await setUp(page)
      await task(page, 'Menus')
      await expect(page.getByRole('textbox', { name: 'Label of item A' })).toBeVisible()
      // `npm run attack` judges how long a press waited.
      const answers = await page.evaluate(() => (window as unknown as { answers: number[] }).answers)
      annotations.push({ type: 'slowest answer', description: String(Math.max(0, ...answers)) })
    })

  test('the listener would have heard it', async ({ page }) => {
    const { port } = listener.address() as AddressInfo
    await page.goto(`http://127.0.0.1:${port}/control`)
    expect(heard).toContain('GET /control')
    heard.length = 0
  })
})
