/** A page whose script handles presses in its own way: reported, taken over, and given back. */
import { expect, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, pressAt, scrollTo } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { measured, setUp, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const IDS = ['files', 'gravers', 'lathes', 'orders']

test.describe('presses of links', () => {
  /** Longer than the page's script moves. */
  const goneBy = (page: Page) => page.waitForTimeout(1300)

  const standing = (page: Page, id: string) =>
    page.evaluate((at) => {
      const { top } = document.getElementById(at)!.getBoundingClientRect()
      return {
        gap: top - document.querySelector('.bar')!.getBoundingClientRect().bottom,
        isEnd: scrollY >= document.documentElement.scrollHeight - innerHeight - 1,
        hash: location.hash,
        target: document.querySelector(':target')?.id,
        current: [...document.querySelectorAll('[aria-current]')].map((a) => a.getAttribute('href')),
        entries: history.length,
        counted: (window as unknown as { counted: number }).counted,
        isOpen: document.querySelector('.bar')!.classList.contains('open'),
      }
    }, id)

  test('that leave their targets hidden are reported, but not as stopping elsewhere where nothing could move them', async ({
    page,
    server,
  }) => {
    await bringIn(page, server, join(repository, 'e2e/pages/field/reveal/index.html'))
    await setUp(page)
    await expect(page.getByTestId('tried')).toContainText('4 links tried')
    await page.getByRole('button', { name: /\d+ findings?/ }).click()
    await expect(page.getByText(/“Where we are” arrives under the page’s main/).first()).toBeVisible()
    await expect(page.getByText(/“Where we are” stops/)).toHaveCount(0)
  })

  test('do what only the page’s script allows, if it undoes every other scroll', async ({ page, server }) => {
    const held = readFileSync(join(repository, 'e2e/pages/field/held/index.html'), 'utf8')
    // It jumps back at its end, but stays anywhere else.
    const begins = `<script>addEventListener('scroll', () => { if (scrollY > document.documentElement.scrollHeight - innerHeight - 2) scrollTo(0, 0) })</script>`
    const round = held.replace(/<script>[^]*<\/script>/, begins)
    for (const [name, source, isHeld] of [
      ['held.html', held, true],
      ['round.html', round, false],
    ] as const) {
      const file = test.info().outputPath(name)
      writeFileSync(file, source)
      await bringIn(page, server, file)
      await setUp(page)
      await expect(page.getByTestId('tried')).toContainText('4 links tried')
      await page.getByRole('button', { name: /\d+ findings?|No findings/ }).click()
      await expect(page.getByText(/sets the scroll position on every frame \(on every screen\)/)).toHaveCount(isHeld ? 1 : 0)
      await expect(page.getByText(/“Cloth” stops 92 px below its place, because a page script handles the press/)).toHaveCount(
        isHeld ? 1 : 0,
      )
      await expect(page.getByText(/where computed/)).toHaveCount(0)
      // No fix is offered if the script scrolls back afterwards.
      await expect(page.getByRole('button', { name: /Handle the presses/ })).toHaveCount(0)
      await task(page, 'Travel')
      await expect(page.getByRole('region', { name: 'Presses' })).toHaveCount(isHeld ? 1 : 0)
      await expect(page.getByRole('button', { name: /Handle the presses/ })).toHaveCount(0)
    }
  })

  test('are handled instead of the page’s script, which does everything else, and are given back', async ({ page, browser, server }) => {
    // The page's position at each press.
    const noted = readFileSync(join(repository, 'e2e/pages/field/own-way/index.html'), 'utf8').replace(
      '</head>',
      "<script>addEventListener('click', () => (window.stood ??= []).push(scrollY), true)</script></head>",
    )
    await bringIn(page, server, [{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(noted) }])
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const presses = page.getByRole('region', { name: 'Presses' })

    await test.step('numbers say what the script does with them', async () => {
      await expect(presses).toContainText('handles 4 links')
      await expect(presses).toContainText(/stops up to \d+ px too low \(“(Files|Gravers|Lathes|Orders)” on /)
      await page.getByRole('button', { name: /\d+ findings?/ }).click()
      await expect(page.getByText(/handles 4 links and stops up to \d+ px too low .* jumps into place/).first()).toBeVisible()
    })

    await test.step('one press at a finding handles them', async () => {
      await page.getByRole('button', { name: 'Handle presses instead of the page’s script' }).first().click()
      await expect(presses).toContainText('follow the settings here')
      await expect(page.getByTestId('tried')).toContainText('4 links tried')
      await expect(page.getByText(/A page script handles \d links? and stops/)).toHaveCount(0)
      await page.keyboard.press('Escape')
    })

    await test.step('links are tried from above and below as before', async () => {
      const frame = (await (await page.locator('iframe[data-measuring]').first().elementHandle())!.contentFrame())!
      const { stood, end } = await frame.evaluate(() => ({
        stood: (window as unknown as { stood: number[] }).stood,
        end: document.documentElement.scrollHeight - innerHeight,
      }))
      // The last eight are the tries after the press.
      const last = stood.slice(-8)
      expect(last.filter((y) => y === 0)).toHaveLength(4)
      expect(last.filter((y) => Math.abs(y - end) <= 1)).toHaveLength(4)
    })

    const url = pathToFileURL(await takeHome(page)).href
    for (const viewport of [
      { width: 1280, height: 800 },
      { width: 390, height: 844 },
    ])
      await test.step(`by the mouse, ${viewport.width} px wide`, async () => {
        const there = await (await browser.newContext({ viewport })).newPage()
        await there.goto(url)
        await atRest(there)
        let pressed = 0
        for (const from of [0, 1e6])
          for (const id of IDS) {
            await scrollTo(there, from)
            await atRest(there)
            const stood = await there.evaluate(() => scrollY)
            if (viewport.width < 700) await pressAt(there, there.getByRole('button', { name: 'Menu' }))
            const before = await standing(there, id)
            await pressAt(there, there.locator(`nav a[href="#${id}"]`))
            await goneBy(there)
            await atRest(there)
            const { gap, isEnd, entries, ...now } = await standing(there, id)
            if (isEnd) expect(gap, id).toBeGreaterThan(23)
            else expect(Math.abs(gap - 24), `${id} from ${from}: ${gap}`).toBeLessThanOrEqual(1)
            expect(now).toEqual({ hash: `#${id}`, target: id, current: [`#${id}`], counted: ++pressed, isOpen: false })
            // The same address adds no history entry.
            expect(entries - before.entries, `${id}: entries of the history`).toBe(before.hash === `#${id}` ? 0 : 1)
            if (!entries) continue
            await there.goBack()
            await atRest(there)
            expect(Math.abs((await there.evaluate(() => scrollY)) - stood), `back from ${id}`).toBeLessThanOrEqual(1)
            await there.goForward()
            await atRest(there)
          }
        // Links that lead to no section are the page's.
        await scrollTo(there, 0)
        const { hash } = await standing(there, 'orders')
        await there.getByRole('link', { name: 'Price list' }).click()
        await expect(there.locator('#price-list')).toBeVisible()
        expect((await standing(there, 'orders')).hash).toBe(hash)
        // The page's script may scroll again once the visitor acts.
        await there.mouse.wheel(0, 300)
        await expect.poll(() => there.evaluate(() => scrollY)).toBe(300)
        await there.evaluate(() => window.scrollTo(0, 200))
        await atRest(there)
        expect(await there.evaluate(() => scrollY)).toBe(200)
        await there.context().close()
      })

    await test.step('given back, the script has them; undone, it hasn’t', async () => {
      await task(page, 'Travel')
      await presses.getByRole('button', { name: 'Let the page’s script handle them' }).click()
      await expect(presses).toContainText('handles 4 links')
      await page.keyboard.press('Control+z')
      await expect(presses).toContainText('follow the settings here')
    })
  })
})
