/** Screens in step: the one in view large, the others small beside it, at the same place of the page. */
import { expect, test, type Page } from '@playwright/test'
import { liveFrame, measured, openDemo, Server, setUp, task } from './support/server.ts'

test.describe('screens in step', () => {
  let server: Server
  test.beforeEach(async () => void (server = await new Server().start()))
  test.afterEach(() => server.stop())

  const at = (page: Page, screen: string) =>
    liveFrame(page, screen)
      .locator('html')
      .evaluate(() => Math.round(scrollY))
  const land = async (page: Page, section: string, screen: string) =>
    Number(await page.locator(`[data-arrival-row="${section}"] [data-screen="${screen}"][data-land]`).getAttribute('data-land'))
  const width = async (page: Page, screen: string) => (await page.locator(`iframe[data-screen="${screen}"]`).boundingBox())!.width

  test('a link followed once is followed on all, and who scrolls one scrolls all', async ({ page }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const beside = page.locator('[data-beside="phone"]')

    await test.step('by a link of the page', async () => {
      await liveFrame(page).locator('header a', { hasText: 'Beds' }).first().dispatchEvent('click')
      for (const screen of ['laptop', 'phone']) await expect.poll(() => at(page, screen)).toBe(await land(page, 'beds', screen))
      await expect(beside).toHaveText(/^Phone 24 px$/)
      await expect(liveFrame(page, 'phone').locator('header a[aria-current]')).toHaveText('Beds')
    })

    await test.step('by a row of the sheet, to a section that the page’s end keeps from its place', async () => {
      await page.locator('[data-arrival-row="contact"] button').click()
      for (const screen of ['laptop', 'phone']) await expect.poll(() => at(page, screen)).toBe(await land(page, 'contact', screen))
      await expect(liveFrame(page, 'phone').locator('header a[aria-current]')).toHaveText('Contact')
    })

    await test.step('by scrolling, as far between the same two arrivals', async () => {
      const [from, to] = [await land(page, 'beds', 'laptop'), await land(page, 'tickets', 'laptop')]
      await liveFrame(page)
        .locator('html')
        .evaluate((_, y) => scrollTo({ top: y, behavior: 'instant' }), (from + to) / 2)
      const [there, next] = [await land(page, 'beds', 'phone'), await land(page, 'tickets', 'phone')]
      await expect.poll(async () => Math.abs((await at(page, 'phone')) - (there + next) / 2)).toBeLessThan(3)
      await liveFrame(page)
        .locator('html')
        .evaluate(() => scrollTo({ top: 0, behavior: 'instant' }))
      await expect.poll(() => at(page, 'phone')).toBe(0)
    })

    await test.step('pressed, it is the one in view, and the other stands beside it', async () => {
      expect(await width(page, 'phone')).toBeLessThan(200)
      await beside.click()
      await expect(page.getByRole('radio', { name: /^Phone/ })).toBeChecked()
      await expect(page.locator('[data-beside="laptop"]')).toBeVisible()
      expect(await width(page, 'phone')).toBeGreaterThan(250)
      const [large, small] = [
        (await page.locator('iframe[data-screen="phone"]').boundingBox())!,
        (await page.locator('iframe[data-screen="laptop"]').boundingBox())!,
      ]
      expect(small.x).toBeGreaterThanOrEqual(large.x + large.width)
    })

    await test.step('put away, it stays where it is, also after a reload', async () => {
      await page.getByRole('checkbox', { name: 'In step' }).uncheck()
      await expect(page.locator('[data-beside]')).toHaveCount(0)
      await page.getByRole('radio', { name: /^Laptop/ }).click()
      await liveFrame(page)
        .locator('html')
        .evaluate(() => scrollTo({ top: 900, behavior: 'instant' }))
      // The header shrinks, and the page with it.
      await expect.poll(() => at(page, 'laptop')).toBeGreaterThan(800)
      expect(await at(page, 'phone')).toBe(0)
      await page.reload()
      await expect(page.getByRole('checkbox', { name: 'In step' })).not.toBeChecked()
    })
  })
})
