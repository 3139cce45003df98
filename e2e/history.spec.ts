/** Going back and forward isn't an arrival: the visitor's position is restored, and stays. */
import { expect, test, type Browser, type Page } from '@playwright/test'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { atRest, currentByRule, facts, scrollTo } from './support/boxes.ts'
import { handedOver, repository } from './support/cli.ts'

const sources = [
  join(repository, 'demo/ostrey/index.html'),
  ...readdirSync(join(repository, 'e2e/pages'))
    .filter((f) => f.endsWith('.html'))
    .map((f) => join(repository, 'e2e/pages', f)),
  // Its header has a fractional height that its style can't express.
  join(repository, 'e2e/pages/field/festival/index.html'),
]

const built = async (source: string): Promise<string> => pathToFileURL(await handedOver(source)).href

/** A visitor with larger text than measured: the header is taller than the style says. */
async function builtForLargerLetters(source: string): Promise<string> {
  const address = await built(source)
  changed(fileURLToPath(address), /--wb-header: [\d.]+px/, '--wb-header: 30px')
  return address
}

function changed(path: string, what: RegExp, to: string): void {
  const text = readFileSync(path, 'utf8')
  const other = text.replace(what, to)
  expect(other).not.toBe(text)
  writeFileSync(path, other)
}

/** Long enough for any late movement. */
const stay = (page: Page) => page.waitForTimeout(4000)

/** Items that the position marks; the top stands for the section that starts there. */
async function markedByPlace(page: Page): Promise<void> {
  const seen = await facts(page)
  const line = await page.evaluate(() => {
    const { bellOffset } = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { bellOffset: number }
    return bellOffset + parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--wb-header'))
  })
  const id = currentByRule(Object.keys(seen.tops), seen.tops, line, seen.furthest, seen.scroll)
  const hashes = seen.current.map((c) => decodeURIComponent(c.href.replace(/^[^#]*#/, '')))
  const isMeant = (hash: string) => hash === id || ((hash === '' || hash.toLowerCase() === 'top') && id === Object.keys(seen.tops)[0])
  expect(hashes.every(isMeant), `${hashes.join(' ')} is current where ${id} is`).toBe(true)
}

async function walkThroughHistory(browser: Browser, address: string, hasNavigation: boolean): Promise<string> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  try {
    const page = await context.newPage()
    // Many current engines lack it; the fallback is tested here.
    if (!hasNavigation) await page.addInitScript(() => Object.defineProperty(window, 'navigation', { value: undefined }))
    await page.goto(address)
    await atRest(page)
    const { furthest } = await facts(page)
    const links = await page.evaluate(() => {
      const settings = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
      const all = [...document.querySelectorAll<HTMLAnchorElement>('[data-wb-menu] a[href]')].filter(
        (a) => a.getClientRects().length && settings.sections.includes(decodeURIComponent(a.hash.slice(1))),
      )
      return all.map((a) => a.getAttribute('href')!)
    })
    const follow = async (href: string) => {
      // By script, because a real press would scroll to the menu first.
      await page
        .locator(`[data-wb-menu] a[href="${href}"]`)
        .first()
        .evaluate((a: HTMLElement) => a.click())
      await atRest(page)
      await page.waitForTimeout(600)
    }
    const [last, middle] = [links.at(-1)!, links.at(-2)!]
    /** A shrinking header may shift the page: the position on leaving counts. */
    const standAt = async (top: number): Promise<number> => {
      await scrollTo(page, top)
      await atRest(page)
      return page.evaluate(() => scrollY)
    }
    const left = await standAt(Math.min(800, Math.round(furthest * 0.6)))
    await follow(last)
    const arrived = await page.evaluate(() => scrollY)
    await page.goBack()
    await stay(page)
    expect(await page.evaluate(() => [location.hash, scrollY])).toEqual(['', left])
    await markedByPlace(page)
    await page.goForward()
    await stay(page)
    expect(await page.evaluate(() => Math.round(scrollY))).toBe(Math.round(arrived))
    // With a hash, and away from its target.
    const away = await standAt(Math.round(furthest * 0.25))
    await follow(middle)
    await page.goBack()
    await stay(page)
    expect(await page.evaluate(() => [location.hash !== '', scrollY])).toEqual([true, away])
    await markedByPlace(page)
    // Exactly at a section, where one pixel decides: reloaded, and returned to.
    await follow(middle)
    const there = await page.evaluate(() => Math.round(scrollY))
    const again: Record<string, () => Promise<unknown>> = {
      reload: () => page.reload(),
      'back from elsewhere': () => page.goto('about:blank').then(() => page.goBack()),
    }
    for (const [way, go] of Object.entries(again)) {
      await go()
      await atRest(page)
      await page.waitForTimeout(800)
      expect([way, await page.evaluate(() => Math.round(scrollY))]).toEqual([way, there])
    }
    return ''
  } catch (error) {
    return `${address.split('/').at(-1)}: ${String(error)}`
  } finally {
    await context.close()
  }
}

test.describe('history', () => {
  test.describe.configure({ mode: 'serial' })
  const addresses: string[] = []
  test.beforeAll(async () => {
    addresses.push(...(await sideBySide(sources, built)), await builtForLargerLetters(sources.at(-1)!))
  })
  for (const hasNavigation of [true, false]) {
    test(`back and forward leave the page where it was left, ${hasNavigation ? 'with' : 'without'} the browser’s word for it`, async ({
      browser,
    }) => {
      const wrong = await sideBySide(hasNavigation ? addresses : addresses.slice(0, 4), (address) =>
        walkThroughHistory(browser, address, hasNavigation),
      )
      expect(wrong.filter(Boolean)).toEqual([])
    })
  }
  // A slow header is like one on a busy machine: it still moves long after loading.
  for (const duration of ['0.2s', '2.5s']) {
    test(`whoever comes back again and again finds the same place, where a header shrank in ${duration} on the way to it too`, async ({
      page,
    }) => {
      await page.setViewportSize({ width: 1280, height: 800 })
      const address = await built(sources[0]!)
      changed(fileURLToPath(address.replace('index.html', 'sky-week.css')), /transition: padding \.2s/, `transition: padding ${duration}`)
      await page.goto(`${address}#questions-people-ask`)
      await atRest(page)
      const place = await page.evaluate(() => scrollY)
      for (const before of [0, 5]) {
        await page.goto('about:blank')
        await page.goto(address)
        const tall = await page.locator('.bar').evaluate((bar: HTMLElement) => bar.offsetHeight)
        await scrollTo(page, place - before + 32)
        await atRest(page)
        const left = await page.evaluate(() => scrollY)
        const small = await page.locator('.bar').evaluate((bar: HTMLElement) => bar.offsetHeight)
        // It did shrink, and the page moved with it.
        expect([left, tall - small]).toEqual([place - before, 32])
        for (let again = 1; again <= 3; again++) {
          await page.goto('about:blank')
          await page.goBack()
          await atRest(page)
          await page.waitForTimeout(500)
          expect([again, await page.evaluate(() => scrollY)]).toEqual([again, left])
        }
      }
    })
  }

  test('an endless animation in a header doesn’t stop smooth scrolling after a reload', async ({ page }) => {
    const address = await built(sources[0]!)
    const pulse = '@keyframes pulse { to { opacity: .5 } } .bar a { animation: pulse 1s infinite alternate }'
    changed(fileURLToPath(address), /<\/head>/, `<style>${pulse}</style></head>`)
    await page.goto(address)
    await page.reload()
    expect(await page.evaluate(() => document.documentElement.style.overflowAnchor)).toBe('none')
    await expect.poll(() => page.evaluate(() => document.documentElement.style.overflowAnchor)).toBe('')
    expect(await page.evaluate(() => document.documentElement.style.scrollBehavior)).toBe('')
  })

  test('an engine without scroll anchoring restores the position by itself', async ({ page }) => {
    // Like WebKit: without smooth motion it goes to the hash.
    await page.addInitScript(() => {
      const own = Object.getOwnPropertyDescriptor(HTMLElement.prototype, 'style')!
      const get = function (this: HTMLElement): unknown {
        const style = own.get!.call(this) as Record<string | symbol, unknown>
        return new Proxy(style, {
          has: (of, name) => name !== 'overflowAnchor' && name in of,
          get: (of, name) => {
            const value = of[name]
            return typeof value === 'function' ? (value.bind(of) as unknown) : value
          },
          set: (of, name, value) => Reflect.set(of, name, value),
        })
      }
      Object.defineProperty(HTMLElement.prototype, 'style', { ...own, get })
    })
    await page.goto(await built(sources[0]!))
    await page.reload()
    expect(await page.evaluate(() => document.documentElement.style.scrollBehavior)).toBe('')
  })
})

/** Four at a time: most of it is waiting. */
async function sideBySide<T, R>(all: readonly T[], work: (one: T) => Promise<R>): Promise<R[]> {
  const open = [...all]
  const done: R[] = []
  const next = async (): Promise<void> => {
    for (let one = open.shift(); one !== undefined; one = open.shift()) done.push(await work(one))
  }
  await Promise.all([next(), next(), next(), next()])
  return done
}
