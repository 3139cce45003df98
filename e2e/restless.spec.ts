/** Pages that cannot be measured, or not for long: it is said of each, and the rest goes on. */
import { expect, test } from '@playwright/test'
import { make, Server, measured, openSite } from './support/server.ts'

const page = (script: string) => `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Restless</title><style>
body { margin: 0; font: 16px/1.6 serif } header { position: sticky; top: 0; background: #fff; padding: 16px } section { min-height: 70vh; padding: 20px }
</style></head><body><header><nav><a href="#one">One</a> <a href="#two">Two</a></nav></header>
<section id="one"><h2>One</h2><p>Words.</p></section><section id="two"><h2>Two</h2><p>Words.</p></section><script>${script}</script></body></html>`

const troubles: [name: string, script: string, said: RegExp][] = [
  ['runs without end', 'addEventListener("scroll", () => { for (;;); })', /does not answer, so that it is not measured/],
  ['loads itself again and again', 'setTimeout(() => location.reload(), 500)', /loads itself again and again/],
  [
    'takes the page’s means away',
    'Element.prototype.getBoundingClientRect = () => ({}); Array.prototype.map = () => []; requestAnimationFrame = () => 0; Object.defineProperty(document, "scrollingElement", { get: () => null })',
    /does not answer/,
  ],
  [
    'grows without end',
    'setInterval(() => (document.body.style.paddingBottom = (parseFloat(document.body.style.paddingBottom) || 0) + 37 + "px"), 30)',
    /changes its height, or scrolls, by itself and without end/,
  ],
  ['scrolls by itself', 'setInterval(() => scrollBy(0, 3), 20)', /changes its height, or scrolls, by itself and without end/],
]

test.describe('a page that', () => {
  let server: Server
  test.beforeAll(async () => void (server = await new Server().start()))
  test.afterAll(() => server.stop())

  const site = (script: string) => make(server, [{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(page(script)) }])

  for (const [name, script, said] of troubles)
    test(`${name} says so, and keeps no other waiting`, async ({ page: tab, context }) => {
      await tab.goto(`${server.address}/site/${await site(script)}/p1/sections`)
      const well = await context.newPage()
      await openSite(well, server, await site('addEventListener("resize", () => { throw Error("no harm") }); alert("a dialog"); print()'))
      await expect(well.getByText(/does not answer|again and again|without end/)).toHaveCount(0)
      await well.close()
      await tab.bringToFront()
      const findings = tab.getByRole('region', { name: 'Findings' })
      await expect(findings.getByText(said).first()).toBeVisible({ timeout: 240_000 })
      await findings
        .getByRole('button', { name: /finding/ })
        .first()
        .click()
      await findings.getByRole('button', { name: 'Work on it without its scripts' }).click()
      await measured(tab)
      await expect(findings.getByText(said)).toHaveCount(0)
    })
})
