/** What the application leaves alone: nothing unchanged is drawn, and nothing is measured twice. */
import { expect, type Page } from '@playwright/test'
import { measured, openDemo, setUp, stored, task } from './support/server.ts'
import { test } from './support/test.ts'

/** Counts React's renders through its devtools hook: components that ran in each commit, by test ID or tag. */
async function countRenders(page: Page): Promise<void> {
  await page.addInitScript(() => {
    interface Fiber {
      flags: number
      type: unknown
      child: Fiber | null
      sibling: Fiber | null
      alternate: Fiber | null
      stateNode: unknown
    }
    const rendered: string[] = []
    const nameOf = (fiber: Fiber): string => {
      for (let f: Fiber | null = fiber; f; f = f.child)
        if (f.stateNode instanceof Element) return f.stateNode.getAttribute('data-testid') ?? f.stateNode.outerHTML.slice(0, 80)
      return 'nothing'
    }
    const visit = (now: Fiber, before: Fiber | null): void => {
      if (before && now !== before && typeof now.type === 'function' && now.flags & 1) rendered.push(nameOf(now))
      if (before && now.child === before.child) return
      for (let child = now.child; child; child = child.sibling) visit(child, child.alternate)
    }
    Object.assign(window, {
      rendered,
      __REACT_DEVTOOLS_GLOBAL_HOOK__: {
        supportsFiber: true,
        inject: () => 1,
        onCommitFiberRoot: (_: number, root: { current: Fiber }) => visit(root.current, root.current.alternate),
        onCommitFiberUnmount: () => undefined,
      },
    })
  })
}
const renders = (page: Page) => page.evaluate(() => (window as unknown as { rendered: string[] }).rendered.splice(0))

test.describe('at rest', () => {
  test.describe.configure({ mode: 'parallel' })

  test('scrolling the live page redraws only the window on the spine', async ({ page, server }) => {
    await countRenders(page)
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    for (const name of ['Sections', 'Travel', 'Highlight']) {
      await task(page, name)
      await measured(page)
      await expect(page.getByTestId('tried')).toContainText('links tried')
      await page.waitForTimeout(1500)
      await renders(page)
      const frame = page.frames().filter((f) => f.url().includes('.localhost'))[0]!
      await frame.evaluate(async () => {
        const start = performance.now()
        for (let t = 0; t < 5000; t = performance.now() - start) {
          scrollTo({ top: (t / 5000) * 5000, behavior: 'instant' })
          await new Promise((done) => requestAnimationFrame(done))
        }
      })
      const drawn = await renders(page)
      expect(drawn.length).toBeGreaterThan(20)
      // The caption of the other screen changes when it arrives and leaves, nine times.
      const beside = drawn.filter((what) => what === 'beside')
      expect(beside.length, name).toBeLessThanOrEqual(2 * 9)
      expect(
        [...new Set(drawn)].filter((what) => what !== 'beside'),
        name,
      ).toEqual(['window'])
    }
  })

  test('a reopened site shows its last results at once, and measures only stale screens', async ({ page, server }) => {
    await openDemo(page, server)
    await task(page, 'Sections')
    if (await page.getByRole('button', { name: 'Set everything up', exact: true }).isVisible()) await setUp(page)
    await task(page, 'Travel')
    await measured(page)
    // Surveys are stored after a pause.
    await page.waitForTimeout(1500)
    const lands = () => page.locator('[data-land]').evaluateAll((cells) => cells.map((c) => c.getAttribute('data-land')))
    const before = await lands()
    const puts: string[] = []
    page.on('request', (r) => void (r.method() === 'PUT' && puts.push(r.url())))
    await page.reload()
    await expect(page.locator('[data-land]').first()).toBeVisible()
    await expect(page.getByRole('region', { name: 'Live page' })).toHaveAttribute('data-stale', '0')
    expect(await lands()).toEqual(before)
    await measured(page)
    await page.waitForTimeout(4000)
    expect(puts).toEqual([])
    // An edit that affects layout is measured on every screen; others need no measurement.
    await page.getByRole('spinbutton', { name: 'Breathing space' }).fill('60')
    await page.getByRole('spinbutton', { name: 'Breathing space' }).press('Enter')
    await stored(page)
    await measured(page)
    await expect.poll(() => puts.length).toBeGreaterThan(0)
    expect(await lands()).not.toEqual(before)
  })
})
