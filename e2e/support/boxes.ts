/** Reads boxes in a page. Nothing here comes from Way Bell's own code: it is what its figures are checked against. */
import type { Locator, Page } from '@playwright/test'

/**
 * Until the page and its menus have stood still over several frames and nothing in it runs. Frames are counted, not time, since a busy machine may
 * draw none for long; a page without script has none to count and is asked from outside.
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
 * Until the page has begun to move: on a busy machine a smooth scroll may begin many frames after the click. A link that has nowhere to go moves
 * nothing, which is waited for as well.
 * @param patience how long, in ms: one that has somewhere to go may take its time
 */
export async function underWay(page: Page, from: number, patience = 2500): Promise<void> {
  await page.waitForFunction((y) => scrollY !== y, from, { timeout: patience }).catch(() => {})
}

/**
 * A press in the middle of a link, where it stands: the driver's own click scrolls the page to a header that is stuck, and the menu then moves
 * sideways between the press and the release.
 */
export async function pressAt(page: Page, link: Locator): Promise<void> {
  const box = (await link.boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
}

/** Instant scroll, as no part of the page asks for it, and two frames. */
export async function scrollTo(page: Page, top: number): Promise<void> {
  await page.evaluate(async (y) => {
    window.scrollTo({ top: y, behavior: 'instant' })
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
  }, top)
}

/** Lower edge of what lies over the viewport's top, by asking what stays there: elements that are fixed, or sticky and stuck. */
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
  /** Tops in the document of the sections that the page's settings name, in their order. */
  tops: Record<string, number>
  current: { href: string; menu: number }[]
}

export function facts(page: Page): Promise<PageFacts> {
  return page.evaluate(() => {
    const settings = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
    const tops: Record<string, number> = {}
    // As pages had targets before any element could be one, by a name.
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

/** The rule in words: the last section, by top, whose top has crossed the bell line; those that the end would keep from ringing are pulled in. */
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

/** What was current, and the boxes by which to judge it, at every `step` px from the page's top to its end. */
export function sweep(page: Page, step: number): Promise<(PageFacts & { header: number })[]> {
  return page.evaluate(async (by) => {
    const settings = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
    const root = document.documentElement
    const scroller = document.scrollingElement!
    const out = []
    for (let y = 0; y <= scroller.scrollHeight - scroller.clientHeight; y += by) {
      window.scrollTo({ top: y, behavior: 'instant' })
      // One frame with its scroll events, and what they asked for in it.
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
