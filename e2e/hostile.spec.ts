/** A page that tries to reach the application or the network gets nowhere, its scripts on and off. */
import { expect, test } from '@playwright/test'
import { createServer, type Server as HttpServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { Server, setUp } from './support/server.ts'

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
    // What comes without speaking HTTP is heard as well.
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
    // And it can still be worked on.
    await setUp(page)
    await page.getByLabel('Page’s own scripts').uncheck()
    await page.waitForTimeout(3000)
    await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(2, { timeout: 60_000 })
    const still = page.frames().find((f) => f.url().includes('--still.localhost'))!
    expect(await still.evaluate(() => 'tries' in window)).toBe(false)
    expect(page.url()).toContain(server.address)
    expect(await context.cookies()).toEqual(before)
    expect(context.pages()).toHaveLength(1)
    expect(heard).toEqual([])
  })

  test('would have been heard by the listener, had it got out', async ({ page }) => {
    const { port } = listener.address() as AddressInfo
    await page.goto(`http://127.0.0.1:${port}/control`)
    expect(heard).toContain('GET /control')
    heard.length = 0
  })
})
