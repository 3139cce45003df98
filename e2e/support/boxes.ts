/** Reads boxes in a page, without Way Bell's code: its figures are checked against this. */
import type { Locator, Page } from '@playwright/test'

/**
 * Waits until the page and its menus were still over several frames and nothing runs. Counts frames, not time, because a busy machine
 * may draw none for long; a page without script is polled from outside.
 */
export async function atRest(page: Page, hasScript = true): Promise<void> {
  if (hasScript)
    return page.evaluate(async () => {
      const moving = () => {
        const menus = [...document.querySelectorAll('[data-wb-menu]')].map((menu) => menu.querySelector('a')?.getBoundingClientRect().left)
        return `${scrollY} ${menus.join()} ${document.getAnimations().filter((a) => a.playState === 'running').length}`
      }
      let last = ''
      for (let still = 0; still < 12;) {
        await new Promise((done) => requestAnimationFrame(done))
        const now = moving()
        still = now === last && now.endsWith(' 0') ? still + 1 : 0
        last = now
      }
    })
  let last = NaN
  for (let still = 0; still < 4;) {
    const now = await page.evaluate(() => scrollY)
    still = now === last ? still + 1 : 0
    last = now
    await page.waitForTimeout(90)
  }
}

/**
 * Waits until the page has started to move: on a busy machine a smooth scroll may start many frames after the click. A link with nowhere
 * to go moves nothing, which also ends it.
 * @param patience max wait in ms
 */
export async function underWay(page: Page, from: number, patience = 2500): Promise<void> {
  await page.waitForFunction((y) => scrollY !== y, from, { timeout: patience }).catch(() => {})
}

/**
 * Presses the middle of a link where it is: Playwright's click scrolls the page for a stuck header, and the menu then moves between
 * press and release.
 */
export async function pressAt(page: Page, link: Locator): Promise<void> {
  const box = (await link.boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
}

/** Scrolls instantly, then waits two frames. */
export async function scrollTo(page: Page, top: number): Promise<void> {
  await page.evaluate(async (y) => {
    window.scrollTo({ top: y, behavior: 'instant' })
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
  }, top)
}

/** Lower edge of the cover at the viewport's top, from fixed and stuck elements there. */
export function coveredEdge(page: Page): Promise<number> {
  return page.evaluate(() => {
    let edge = 0
    for (const el of document.body.querySelectorAll('*')) {
      const style = getComputedStyle(el)
      if (style.position !== 'fixed' && style.position !== 'sticky') continue
      const box = el.getBoundingClientRect()
      if (box.width < innerWidth / 2 || box.height === 0 || box.top > 200 || style.visibility === 'hidden') continue
      edge = Math.max(edge, box.bottom)
    }
    return edge
  })
}

export interface PageFacts {
  scroll: number
  furthest: number
  /** Document tops of the sections in the page's settings, in their order. */
  tops: Record<string, number>
  current: { href: string; menu: number }[]
}

export function facts(page: Page): Promise<PageFacts> {
  return page.evaluate(() => {
    const settings = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
    const tops: Record<string, number> = {}
    // Old targets by name.
    for (const id of settings.sections)
      tops[id] = (document.getElementById(id) ?? document.getElementsByName(id)[0])!.getBoundingClientRect().top + scrollY
    const menus = [...document.querySelectorAll('[data-wb-menu]')]
    return {
      scroll: scrollY,
      furthest: document.scrollingElement!.scrollHeight - document.scrollingElement!.clientHeight,
      tops,
      current: [...document.querySelectorAll('[aria-current]')].map((el) => ({
        href: el.getAttribute('href')!,
        menu: menus.findIndex((m) => m.contains(el)),
      })),
    }
  })
}

/**
 * The rule in words: the last section, by top, that has crossed the bell line; those that the page's end would keep from ringing are
 * pulled in.
 */
export function currentByRule(ids: string[], tops: Record<string, number>, line: number, furthest: number, scroll: number): string | null {
  const order = ids.map((id, i) => ({ id, i, ring: tops[id]! - line })).sort((a, b) => a.ring - b.ring || a.i - b.i)
  const share = Math.min(40, furthest / order.length)
  let least = furthest - share
  for (const section of [...order].reverse()) {
    if (section.ring <= least) break
    section.ring = least
    least -= share
  }
  return order.filter((s) => s.ring <= scroll).pop()?.id ?? null
}

/** The current items, and the boxes to judge them by, every `step` px from top to end. */
export function sweep(page: Page, step: number): Promise<(PageFacts & { header: number })[]> {
  return page.evaluate(async (by) => {
    const settings = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
    const root = document.documentElement
    const scroller = document.scrollingElement!
    const out = []
    for (let y = 0; y <= scroller.scrollHeight - scroller.clientHeight; y += by) {
      window.scrollTo({ top: y, behavior: 'instant' })
      // One frame with its scroll events and their requests.
      await new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
      out.push({
        scroll: scrollY,
        furthest: scroller.scrollHeight - scroller.clientHeight,
        tops: Object.fromEntries(settings.sections.map((id) => [id, document.getElementById(id)!.getBoundingClientRect().top + scrollY])),
        current: [...document.querySelectorAll('[aria-current]')].map((el) => ({ href: el.getAttribute('href')!, menu: 0 })),
        header: parseFloat(getComputedStyle(root).getPropertyValue('--wb-header')),
      })
    }
    return out
  }, step)
}
