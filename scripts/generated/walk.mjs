/* global innerWidth, innerHeight */
/**
 * Walks built pages like a visitor and compares with what the build reported: every menu link, pressed with the mouse from a random position.
 * It judges by the browser alone and uses nothing of packages/.
 */
import { judge } from '../field/judge.mjs'
import { rest } from '../field/rest.mjs'
import { random } from './pages.mjs'

/** In px: two roundings may differ by as much. */
const EXACT = 1.01
/** How late pictures come, in ms. */
const LATE = 400

/**
 * @param {import('@playwright/test').Browser} browser
 * @param {{ address: string, report: object, views: View[], seed: number }} built `address` of the built page; `report` of its build
 * @typedef {{ key?: string, width: number, height: number, touch?: boolean, reducedMotion: 'reduce' | 'no-preference' }} View `key` of a screen that
 *   was measured
 * @returns {Promise<{ walked: number, wrong: string[], told: number }>} `wrong`: what a visitor meets and the report doesn't say
 */
export async function walk(browser, { address, report, views, seed }) {
  const next = random(seed)
  const wrong = []
  let [walked, told] = [0, 0]
  for (const { key, width, height, touch, reducedMotion } of views) {
    const context = await browser.newContext({ viewport: { width, height }, hasTouch: !!touch, reducedMotion })
    const page = await context.newPage()
    page.setDefaultTimeout(5000)
    await page.route(/\.svg$/, async (route) => {
      await new Promise((done) => setTimeout(done, LATE))
      await route.continue().catch(() => {})
    })
    await page.goto(address, { waitUntil: 'load', timeout: 30_000 })
    await rest(page)
    for (const link of await page.evaluate(linksOf)) {
      const id = decodeURIComponent(link.href.split('#')[1] ?? '')
      const from = await stand(page, next())
      if (!(await press(page, link))) continue
      walked++
      const seen = await page.evaluate(judge, [link.m, link.n, id])
      const computed = report.arrivals.find((a) => a.screen === key && a.id === id)
      const by = !computed ? 0 : Math.abs(computed.land < 1 ? seen.scroll : seen.top - computed.target)
      const faults = [seen.landed, seen.lit, by > EXACT ? `is ${by.toFixed(1)} px off` : ''].filter(Boolean)
      if (!faults.length) continue
      const isTold =
        (report.links ?? []).some((l) => l.fault && l.label === link.label && (!key || l.screen === key)) ||
        report.findings.some((f) => ['error', 'warning'].includes(f.severity) && f.message.includes(`“${link.label}”`))
      if (isTold) told++
      else
        wrong.push(
          `${width}x${height}${reducedMotion === 'reduce' ? ', reduced motion' : ''}: “${link.label}” from ${from} px: ${faults.join('; ')} (stands at ${seen.scroll}${computed ? `, computed ${computed.land}` : ''})`,
        )
    }
    await context.close()
  }
  if (!walked) wrong.push('no link could be pressed')
  return { walked, wrong, told }
}

/** Links of the menus, in the page. A page that works already has none of our marks. */
function linksOf() {
  if (!document.querySelector('[data-wb-menu]')) document.querySelector('nav, .nav')?.setAttribute('data-wb-menu', '')
  return [...document.querySelectorAll('[data-wb-menu]')].flatMap((menu, m) =>
    [...menu.querySelectorAll('a')].map((a, n) => ({ m, n, href: a.getAttribute('href') ?? '', label: a.textContent.trim() })),
  )
}

/** Scrolls at once to a share of the page. @returns where the page stands, in px */
async function stand(page, share) {
  await page.evaluate((share) => {
    const box = document.querySelector('[data-wb-scroller]') ?? document.scrollingElement
    box.scrollTo({ top: share < 0.3 ? 0 : share * box.scrollHeight, behavior: 'instant' })
  }, share)
  await rest(page)
  return page.evaluate(() => Math.round((document.querySelector('[data-wb-scroller]') ?? document.scrollingElement).scrollTop))
}

/** Presses a link with the mouse, from the page's top if it isn't in view. False if it can't be pressed there either. */
async function press(page, { m, n }) {
  const spot = async () =>
    page.evaluate(
      ([m, n]) => {
        const link = document.querySelectorAll('[data-wb-menu]')[m].querySelectorAll('a')[n]
        const list = link.closest('ul')
        if (list) list.scrollLeft = link.offsetLeft - list.offsetLeft - 10
        for (const box of link.getClientRects()) {
          const [x, y] = [box.left + box.width / 2, box.top + box.height / 2]
          const hit = x < 0 || y < 0 || x >= innerWidth || y >= innerHeight ? null : document.elementFromPoint(x, y)
          if (hit && link.contains(hit)) return { x, y }
        }
        return null
      },
      [m, n],
    )
  let at = await spot()
  if (!at) {
    await stand(page, 0)
    at = await spot()
  }
  if (!at) return false
  await page.mouse.click(at.x, at.y)
  await page.mouse.move(3, page.viewportSize().height - 5)
  await page.waitForTimeout(150)
  await rest(page)
  // Late pictures and corrections.
  await page.waitForTimeout(900)
  await rest(page)
  return true
}
