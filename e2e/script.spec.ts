/** The script in a handed-over page: its cost while scrolling, and what keeps or releases a followed link. */
import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge, scrollTo } from './support/boxes.ts'
import { freshFolder, handedOver, repository, waybellBuilt } from './support/cli.ts'

const current = (page: Page) => page.evaluate(() => [...document.querySelectorAll('[aria-current]')].map((el) => el.getAttribute('href')!))

const shortEnd = join(repository, 'e2e/pages/short-end.html')

/** The same page as it is, and with a script of its own, for which it gets corrections of arrivals too. */
const kinds = {
  'the script that marks alone': () => handedOver(shortEnd),
  'the script that marks and corrects arrivals': async () => {
    const from = freshFolder()
    writeFileSync(join(from, 'index.html'), readFileSync(shortEnd, 'utf8') + '<script>void 0</script>')
    await waybellBuilt('build', join(from, 'index.html'), '--out', join(from, 'built'), '--no-try')
    return join(from, 'built/index.html')
  },
}
type Kind = keyof typeof kinds

for (const kind of Object.keys(kinds) as Kind[]) test.describe(kind, () => ofKind(kind))

function ofKind(kind: Kind) {
  test.describe.configure({ mode: 'serial' })
  let address = ''
  test.beforeAll(async () => {
    const file = await kinds[kind]()
    expect(readFileSync(file, 'utf8').includes('Links need this script to arrive')).toBe(kind !== 'the script that marks alone')
    address = pathToFileURL(file).href
  })
  const open = async (page: Page, hash = '') => {
    await page.goto(address + hash)
    await atRest(page)
    await page.waitForTimeout(400)
  }

  test('reads no boxes during scrolling, and none before the frame is drawn', async ({ page }) => {
    await page.addInitScript(() => {
      const counts = ((window as unknown as { counts: Record<string, number> }).counts = { boxes: 0, styles: 0 })
      const box = Element.prototype.getBoundingClientRect
      Element.prototype.getBoundingClientRect = function () {
        counts.boxes!++
        return box.call(this)
      }
      const style = window.getComputedStyle
      window.getComputedStyle = (...args) => {
        counts.styles!++
        return style(...args)
      }
    })
    await open(page)
    const counts = () => page.evaluate(() => ({ ...(window as unknown as { counts: Record<string, number> }).counts }))
    const before = await counts()
    expect(before.boxes).toBeGreaterThan(0)
    await page.mouse.move(600, 500)
    for (let i = 0; i < 8; i++) {
      await page.mouse.wheel(0, 150)
      await page.waitForTimeout(60)
    }
    expect(await counts()).toEqual(before)
    expect(await current(page)).toHaveLength(1)
  })

  test('of two links followed in a row, the page stops at the second', async ({ page }) => {
    await open(page)
    const links = await page.evaluate(() =>
      [...document.querySelectorAll('[data-wb-menu] a[href^="#"], [data-wb="menu"] a[href^="#"]')].map((a) => a.getAttribute('href')!),
    )
    const [first, second] = [links.at(-1)!, links[1]!]
    await page.evaluate((hash) => document.querySelector<HTMLElement>(`a[href="${hash}"]`)!.click(), second)
    await atRest(page)
    const alone = await page.evaluate(() => Math.round(scrollY))
    for (const pause of [20, 60, 150]) {
      await scrollTo(page, 0)
      await page.evaluate(
        async ([one, other, ms]) => {
          document.querySelector<HTMLElement>(`a[href="${one}"]`)!.click()
          await new Promise((done) => setTimeout(done, ms))
          document.querySelector<HTMLElement>(`a[href="${other}"]`)!.click()
        },
        [first, second, pause] as const,
      )
      // With few frames a smooth scroll may look still, so the position is awaited; that it stays is checked after.
      await expect.poll(() => page.evaluate(() => Math.round(scrollY))).toBe(alone)
      await page.waitForTimeout(300)
      await atRest(page)
      expect(await page.evaluate(() => Math.round(scrollY))).toBe(alone)
      expect(await current(page)).toEqual([second])
    }
  })

  if (kind === 'the script that marks and corrects arrivals')
    test('a busy browser’s remaining movement after a correction is noticed', async ({ page }) => {
      await open(page)
      const hash = await page.evaluate(
        () => (document.querySelectorAll('[data-wb="menu"] a, [data-wb-menu] a')[1] as HTMLAnchorElement).hash,
      )
      const press = () => page.evaluate((to) => document.querySelector<HTMLElement>(`a[href="${to}"]`)!.click(), hash)
      await press()
      await atRest(page)
      const alone = await page.evaluate(() => Math.round(scrollY))
      await open(page)
      await page.evaluate(async () => {
        const style = document.documentElement.appendChild(document.createElement('style'))
        style.textContent = 'html { scroll-behavior: auto !important }'
        // A smooth scroll that stalls before its end, and moves on after a correction.
        const frame = () => new Promise((done) => requestAnimationFrame(done))
        const { scrollTo: put } = Element.prototype
        // In the next frame, and a good while later: counted in frames, which are rare on a busy machine.
        const left = [1, 15]
        Element.prototype.scrollTo = function (...to: unknown[]) {
          Reflect.apply(put, this, to)
          const frames = left.shift()
          const move = async () => {
            for (let n = 0; n < frames!; n++) await frame()
            scrollBy({ top: 10, behavior: 'instant' })
          }
          if (frames) void move()
        }
        addEventListener('hashchange', () => void frame().then(() => scrollBy({ top: -30, behavior: 'instant' })), { once: true })
        await frame()
      })
      await press()
      await page.waitForTimeout(1500)
      await atRest(page)
      expect(await page.evaluate(() => Math.round(scrollY))).toBe(alone)
      expect(await current(page)).toEqual([hash])
    })

  for (const [way, act] of [
    ['the wheel', (page: Page) => page.mouse.wheel(0, -60)],
    ['a key', (page: Page) => page.keyboard.press('ArrowUp')],
    ['a script', (page: Page) => page.evaluate(() => scrollBy({ top: -60, behavior: 'instant' }))],
  ] as const) {
    // Pages with scripts get the other one.
    if (kind === 'the script that marks alone' && way === 'a script') continue
    test(`a click keeps its item until ${way} scrolls on`, async ({ page }) => {
      await open(page)
      await page.mouse.move(600, 500)
      // The page ends before this one can arrive.
      await page.locator('a[href="#letters"]').click()
      await atRest(page)
      expect(await current(page)).toEqual(['#letters'])
      await page.mouse.move(600, 500)
      await act(page)
      await atRest(page)
      await expect.poll(() => current(page)).not.toEqual(['#letters'])
    })
  }

  test('a click keeps its item over a resize and a layout shift', async ({ page }) => {
    await open(page)
    await page.locator('a[href="#letters"]').click()
    await atRest(page)
    await page.evaluate(() =>
      document.querySelector('#books')!.append(Object.assign(document.createElement('div'), { style: 'height: 300px' })),
    )
    await atRest(page)
    expect(await current(page)).toEqual(['#letters'])
    await page.setViewportSize({ width: 1000, height: 700 })
    await atRest(page)
    await page.waitForTimeout(400)
    await expect.poll(() => current(page)).toEqual(['#letters'])
  })

  test('arriving with a hash marks its item, and going back removes the mark', async ({ page }) => {
    await open(page, '#hours')
    expect(await current(page)).toEqual(['#hours'])
    await open(page)
    await page.locator('a[href="#authors"]').click()
    await atRest(page)
    await page.goBack()
    await atRest(page)
    await expect.poll(() => current(page)).toEqual(['#hello'])
  })

  test('reduced motion has none', async ({ page }) => {
    await page.emulateMedia({ reducedMotion: 'reduce' })
    await open(page)
    expect(await page.evaluate(() => getComputedStyle(document.documentElement).scrollBehavior)).toBe('auto')
  })
}

test.describe('the script with arrivals', () => {
  test('the covered height is the same at every position', async ({ page }) => {
    await page.goto(pathToFileURL(await handedOver(join(repository, 'demo/ostrey/index.html'))).href)
    await atRest(page)
    const seen = new Set<string>()

    for (const y of [0, 30, 55, 130, 400, 3000, 1e6, 50, 20, 0]) {
      await scrollTo(page, y)
      await atRest(page)
      await page.waitForTimeout(250)
      seen.add(await page.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--wb-header')))
    }
    expect([...seen]).toHaveLength(1)
    await scrollTo(page, 2000)
    await atRest(page)
    expect(parseFloat([...seen][0]!)).toBeCloseTo(
      await page.evaluate(() => document.querySelector('header')!.getBoundingClientRect().bottom),
      1,
    )
  })

  test('a link goes straight to where its target will be once the header has shrunk', async ({ page }) => {
    const file = await handedOver(join(repository, 'demo/ostrey/index.html'))
    await page.addInitScript(() => {
      const seen: number[] = ((window as unknown as { seen: number[] }).seen = [])
      addEventListener('scroll', () => seen.push(scrollY))
    })
    await page.goto(pathToFileURL(file).href)
    const ahead = () => page.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--wb-ahead'))
    for (const id of ['programme', 'beds']) {
      await scrollTo(page, 0)
      // It grows again at the top, late on a busy machine.
      await expect.poll(ahead).toBe('32px')
      await atRest(page)
      await page.evaluate(() => ((window as unknown as { seen: number[] }).seen.length = 0))
      await page.click(`[data-wb-menu] a[href="#${id}"]`)
      await expect.poll(ahead).toBe('0px')
      await atRest(page)
      await page.waitForTimeout(400)
      const seen = await page.evaluate(() => (window as unknown as { seen: number[] }).seen)
      expect(seen.length).toBeGreaterThan(2)
      // The header shrinks by 32 px; a busy machine may overshoot by a few.
      expect(Math.max(...seen) - seen.at(-1)!).toBeLessThan(16)
      const room = (await page.evaluate((to) => document.getElementById(to)!.getBoundingClientRect().top, id)) - (await coveredEdge(page))
      expect(Math.round(room)).toBe(24)
    }
  })

  test('a header’s change at an unmeasured width is known once seen', async ({ page }) => {
    const out = freshFolder()
    const parts = ['work', 'team', 'prices'].map((id) => `<section id="${id}"><h2>${id}</h2><p style="height:900px">Words.</p></section>`)
    const source = `<!doctype html><title>Wide</title><style>header{position:sticky;top:0;padding:3vw 20px;background:#fff}header.small{padding:1vw 20px}</style>
<header><nav><a href="#work">Work</a> <a href="#team">Team</a> <a href="#prices">Prices</a></nav></header><p style="height:400px">Before.</p>${parts.join('')}
<script>addEventListener('scroll', () => document.querySelector('header').classList.toggle('small', scrollY > 50))</script>`
    writeFileSync(join(out, 'wide.html'), source)
    await waybellBuilt('build', join(out, 'wide.html'), '--out', join(out, 'built'), '--no-try')
    await page.setViewportSize({ width: 1100, height: 800 })
    await page.goto(pathToFileURL(join(out, 'built/wide.html')).href)
    await atRest(page)
    const said = () => page.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--wb-header'))
    const seen = new Set<string>()
    for (const y of [900, 0, 1400, 0]) {
      await scrollTo(page, y)
      await page.waitForTimeout(600)
      seen.add(await said())
    }
    expect([...seen]).toHaveLength(1)
    await page.click('a[href="#team"]')
    await page.waitForTimeout(1200)
    const top = await page.evaluate(() => document.querySelector('#team')!.getBoundingClientRect().top)
    expect(Math.abs(top - (await coveredEdge(page)) - 24)).toBeLessThanOrEqual(1)
  })

  test('counts what browsers scroll to: an anchor, but no field of that name and nothing fixed', async ({ page }) => {
    const out = freshFolder()
    const part = (id: string, attributes = `id="${id}"`) =>
      `<section ${attributes}><h2>${id}</h2><p style="height:700px">Words.</p></section>`
    const held =
      '<section id="help" style="position:fixed;right:0;bottom:0;width:180px;height:90px;background:#eee"><h2>Help</h2></section>'
    const source = `<!doctype html><title>Named</title><header style="position:sticky;top:0;background:#fff"><nav><a href="#work">Work</a> <a href="#team">Team</a> <a href="#help">Help</a> <a href="#contact">Contact</a></nav></header>
<main><form><label>Contact <input name="contact"></label></form>${part('work')}${part('team')}${held}<a name="contact"></a><h2>Contact</h2><p style="height:900px">Words.</p></main>`
    writeFileSync(join(out, 'named.html'), source)
    await waybellBuilt('build', join(out, 'named.html'), '--out', join(out, 'built'), '--no-try')
    await page.goto(pathToFileURL(join(out, 'built/named.html')).href)
    await atRest(page)
    await page.locator('header a[href="#contact"]').click()
    await atRest(page)
    const top = await page.evaluate(() => document.querySelector('a[name="contact"]')!.getBoundingClientRect().top)
    expect(Math.abs(top - (await coveredEdge(page)) - 24)).toBeLessThanOrEqual(1)
    const marks = new Set<string>()
    for (let y = 0; y <= (await page.evaluate(() => document.documentElement.scrollHeight - innerHeight)); y += 40) {
      await scrollTo(page, y)
      await page.waitForTimeout(30)
      for (const href of await current(page)) marks.add(href)
    }
    expect([...marks]).toEqual(['#work', '#team', '#contact'])
  })
})
