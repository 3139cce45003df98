/* global location, innerWidth, innerHeight, getComputedStyle */
/**
 * A handed-over page as a visitor has it: every link of its menus from the top and from below, without scripts, coming from outside, back,
 * forward, reload, and two presses one after the other.
 */
import { judge } from './judge.mjs'

/** A page counts as at rest after so long without anything happening, in ms: what comes later than `LATE` after a rest moved by itself. */
const QUIET = 700
/** The same where nothing is judged by it, and nothing glides. */
const BRIEF = 400
const LATE = 200

/**
 * @param tab a `Tab` of `engines.mjs`
 * @param {string} address of the served folders
 * @param {string} name the site's; `NAME~before` is the page as it came
 * @returns {Promise<{ kind: string, what: string, wrong: string, lit: string, moved: string, ms: number }[]>} what was tried; `wrong`, `lit` and
 *   `moved` are empty where all is right
 */
export async function visitSite(tab, address, name) {
  const page = (mode, of = name) => `${address}/${mode}/${of}/index.html`
  const tries = []
  await tab.open(page('on'))
  await settle(tab)
  const links = await tab.evaluate(linksOf)
  const record = async (kind, link, { lit = true, from } = {}) => {
    const { moved, ms } = await settle(tab, from)
    const seen = await tab.evaluate(judge, [link.m, link.n, link.id])
    const row = { kind, what: `${link.label} (${link.href})`, wrong: seen.landed, lit: lit && !link.isName ? seen.lit : '', moved, ms }
    tries.push(row)
    return row
  }
  /** Presses a link where the page stands; false where it cannot be pressed there. */
  const press = async (link) => {
    const spot = await tab.evaluate(spotOf, [link.m, link.n, link.id])
    if (!spot) return false
    await tab.press(spot.x, spot.y)
    await tab.move(3, 500)
    return true
  }
  const stand = async (isBelow) => {
    await tab.evaluate(standAt, isBelow)
    await settle(tab, 'call', BRIEF)
  }

  for (const isBelow of [false, true])
    for (const link of links) {
      await stand(isBelow)
      if (await press(link)) await record(isBelow ? 'from below' : 'from the top', link)
    }

  await quickly(tab, links, { stand, record })
  await tab.open('about:blank')
  await tab.open(page('off'))
  const withoutScripts = await tab.evaluate(linksOf)
  // What scripts build, or lead to, is not there without them.
  const isThere = (link) => withoutScripts.some(({ m, n, id }) => m === link.m && n === link.n && id === link.id)
  tries.push(...(await throughHistory(tab, links, { stand, press, page })))

  await tab.open('about:blank')
  await tab.open(page('off'))
  for (const link of links.filter(isThere)) {
    await stand(false)
    if (await press(link)) await record('script off', link, { lit: false })
  }

  for (const link of links.filter((l, i) => links.findIndex((o) => o.id === l.id) === i)) {
    const arrive = async (mode, of) => {
      await tab.open('about:blank')
      await tab.open(`${page(mode, of)}#${link.hash}`)
    }
    await arrive('on')
    const on = await record('from outside', link, { from: 'load' })
    if (isThere(link)) await arrive('off')
    const off = isThere(link) ? await record('from outside, off', link, { lit: false, from: 'load' }) : null
    if (!on.wrong && !off?.wrong) continue
    // Is the page as it came better at this?
    await arrive('on', `${name}~before`)
    await settle(tab, 'load')
    const before = await tab.evaluate(judge, [link.m, link.n, link.id]).catch(() => ({ landed: 'is not there' }))
    for (const row of [on, off]) if (row?.wrong) row.wrong += before.landed ? ' (before too)' : ' (NOT before)'
  }
  tries.push(...(await byOtherIds(tab, page)))
  return tries
}

/** Former IDs arrive where the present ones do, and points where they are meant, with scripts and without, in the same place to a px. */
async function byOtherIds(tab, page) {
  const rows = []
  await tab.open('about:blank')
  await tab.open(page('on'))
  const { former, points } = await tab.evaluate(othersOf)
  for (const mode of ['on', 'off']) {
    const kind = (what) => (mode === 'on' ? what : `${what}, off`)
    const arrive = async (id, quiet) => {
      await tab.open('about:blank')
      await tab.open(`${page(mode)}#${encodeURIComponent(id)}`)
      return settle(tab, 'load', quiet)
    }
    for (const { was, now } of former) {
      await arrive(now, BRIEF)
      const there = await tab.evaluate(() => window.seen.box().scrollTop)
      const { moved, ms } = await arrive(was)
      const at = await tab.evaluate(() => window.seen.box().scrollTop)
      const wrong = Math.abs(at - there) > 1 ? `#${was} stands at ${Math.round(at)}, #${now} at ${Math.round(there)}` : ''
      rows.push({ kind: kind('former ID'), what: `#${was}`, wrong, lit: '', moved, ms })
    }
    for (const point of points) {
      const { moved, ms } = await arrive(point.id)
      const off = await tab.evaluate(offPoint, point)
      const wrong = Math.abs(off) > 1 ? `#${point.id} is ${Math.round(off)} px off` : ''
      rows.push({ kind: kind('point'), what: `#${point.id}`, wrong, lit: '', moved, ms })
    }
  }
  return rows
}

/** Two presses 60 ms apart: the second counts. */
async function quickly(tab, links, { stand, record }) {
  for (const [first, second] of links.map((link, i) => [links.at(i - 2), link])) {
    // Of one link there are no two.
    if (!first || first.id === second.id) continue
    await stand(false)
    const spots = [await tab.evaluate(spotOf, [first.m, first.n, first.id]), await tab.evaluate(spotOf, [second.m, second.n, second.id])]
    if (!spots[0] || !spots[1]) continue
    await tab.press(spots[0].x, spots[0].y)
    await new Promise((done) => setTimeout(done, 60))
    const still = await tab.evaluate(spotOf, [second.m, second.n, second.id])
    if (!still) continue
    await tab.press(still.x, still.y)
    await tab.move(3, 500)
    // A menu that moves with the page may be elsewhere by the time of the second press.
    if ((await tab.evaluate(() => window.seen.pressed)) !== second.href) continue
    await record('two quick presses', second)
  }
}

/**
 * What the visitor's own scroll left is what *back*, *forward* and a reload bring again. An engine may keep a place less well by itself: what it does
 * with no script at all is not held against the page.
 */
async function throughHistory(tab, links, { stand, press, page }) {
  const [a, b] = links.filter((l, i) => l.id !== '' && links.findIndex((o) => o.id === l.id) === i).slice(-2)
  if (!a || !b) return []
  const where = () => tab.evaluate(() => window.seen.box().scrollTop)
  const middle = await tab.evaluate(() => ({ x: Math.round(innerWidth / 2), y: Math.round(innerHeight * 0.7) }))
  const scroll = async (dy) => {
    await tab.move(middle.x, middle.y)
    await tab.wheel(dy)
    await settle(tab)
    return where()
  }
  const pressed = async (link) => {
    // A menu that scrolled away: its link is followed all the same.
    if (!(await press(link)))
      await tab.evaluate(([m, n]) => document.querySelectorAll('[data-wb-menu]')[m].querySelectorAll('a')[n].click(), [link.m, link.n])
    await settle(tab)
  }
  const run = async (mode) => {
    const rows = []
    const expect = async (kind, y, section) => {
      const { moved, ms } = await settle(tab)
      rows.push({ kind, moved, ms, y, section, now: await where() })
    }
    await tab.open('about:blank')
    await tab.open(page(mode))
    await stand(false)
    const start = await scroll(130)
    await pressed(a)
    // A script of the page that goes there by itself may write no address: there is nothing to come back to.
    if ((await tab.evaluate(() => location.hash.length)) < 2) return rows
    const atA = await where()
    const first = await scroll(170)
    await pressed(b)
    const atB = await where()
    const second = await scroll(-90)
    await tab.back()
    await expect('back', first, atA)
    await tab.forward()
    await expect('forward', second, atB)
    await tab.back()
    await settle(tab)
    await tab.back()
    await expect('back to no hash', start, 0)
    await tab.forward()
    await expect('forward to a hash', first, atA)
    await tab.reload()
    await expect('reload', first, atA)
    await tab.evaluate((to) => void setTimeout(() => (location.href = to)), page('on', 'elsewhere'))
    await new Promise((done) => setTimeout(done, 600))
    await tab.back()
    await new Promise((done) => setTimeout(done, 300))
    await expect('back from another page', first, atA)
    return rows
  }
  const on = await run('on')
  const far = (x, y) => Math.abs(x - y) > 2
  const isOff = ({ now, y }) => far(now, y)
  // Going back, Chromium may lead to a hash's section again, and not to where the visitor went on to from there: it does without our script too.
  const own = on.some(isOff) ? await run('own') : []
  const placeOf = ({ now, section }) => (far(now, section) ? now : 'section')
  return on.map((row, i) => {
    const { kind, moved, ms, y, now } = row
    const isAsWithout = own[i] && isOff(own[i]) && placeOf(own[i]) === placeOf(row)
    const wrong = isOff(row) && !isAsWithout ? `stands at ${Math.round(now)}, was left at ${Math.round(y)}` : ''
    return { kind, what: `${a.href}, ${b.href}`, wrong, lit: '', moved, ms }
  })
}

/** Until nothing has moved for a while. @returns what moved after a rest, and how long it took until the last movement, in ms */
async function settle(tab, from = 'call', quiet = QUIET) {
  const { moves, since } = await tab.evaluate(rested, [quiet, from])
  const late = moves.filter(([at, , by], i) => at - (moves[i - 1]?.[0] ?? at) > LATE && Math.abs(by) > 1)
  const moved = late.map(([at, to, by]) => `by ${Math.round(by)} to ${Math.round(to)} after ${Math.round(at - since)} ms`).join(', ')
  return { moved, ms: moves.length ? moves.at(-1)[0] - since : 0 }
}

/* What follows runs in the page. */

async function rested([quiet, from]) {
  const { seen } = window
  const begun = performance.now()
  if (from === 'load') seen.since = performance.getEntriesByType('navigation')[0]?.loadEventEnd || begun
  const last = () => seen.moves.at(-1)?.[0] ?? 0
  while (performance.now() - Math.max(last(), begun) < quiet && performance.now() - begun < 8000)
    await new Promise((done) => setTimeout(done, 30))
  const moves = seen.moves.splice(0)
  const since = seen.since || begun
  seen.since = 0
  return { moves: moves.filter(([at]) => at >= since || from === 'load'), since }
}

function linksOf() {
  const decode = (text) => {
    try {
      return decodeURIComponent(text)
    } catch {
      return text
    }
  }
  return [...document.querySelectorAll('[data-wb-menu]')].flatMap((menu, m) =>
    [...menu.querySelectorAll('a[href*="#"]')].flatMap((a) => {
      const n = [...menu.querySelectorAll('a')].indexOf(a)
      const href = a.getAttribute('href')
      const hash = href.slice(href.indexOf('#') + 1)
      const here = new URL(a.href, document.baseURI).href.split('#')[0] === location.href.split('#')[0]
      const label = (a.textContent ?? '').trim().replace(/\s+/g, ' ')
      const leads = document.getElementById(decode(hash)) || document.getElementsByName(decode(hash)).length || /^(top)?$/i.test(hash)
      // What leads nowhere is told when the page is built, and is nothing of the engine's.
      if (!here || !leads || (hash === '' && !/^(home|start|top|up)$/i.test(label))) return []
      return [{ m, n, href, hash, id: decode(hash), label, isName: /(^|[\s_-])(brand|logo)([\s_-]|$)/i.test(a.className) }]
    }),
  )
}

/** Where a link can be pressed as the page stands; what moves is watched from here on. */
function spotOf([m, n, id]) {
  const link = document.querySelectorAll('[data-wb-menu]')[m].querySelectorAll('a')[n]
  for (const box of link.getClientRects()) {
    const [x, y] = [Math.round(box.left + box.width / 2), Math.round(box.top + box.height / 2)]
    if (x < 0 || y < 0 || x >= innerWidth || y >= innerHeight) continue
    const hit = document.elementFromPoint(x, y)
    if (!hit || !(link.contains(hit) || hit.contains(link))) continue
    Object.assign(window.seen, { id, since: performance.now() })
    window.seen.moves.length = 0
    return { x, y }
  }
  return null
}

/** Former IDs and points, as the page's settings name them; those of the page's own names that lead elsewhere are left out. */
function othersOf() {
  try {
    const { former, points } = JSON.parse(document.querySelector('[data-wb="settings"]').textContent)
    return { former: former.filter((f) => document.getElementById(f.was)), points }
  } catch {
    return { former: [], points: [] }
  }
}

/** How far from its place a point is, in px; nothing where the page ends. */
function offPoint({ id, below, anchor }) {
  const box = window.seen.box()
  const isWhole = box === document.scrollingElement
  const el = anchor ? document.querySelector(`[data-wb-anchor="${anchor}"]`) : document.getElementById(id)
  const top = el.getBoundingClientRect().top + below - (isWhole ? 0 : box.getBoundingClientRect().top + box.clientTop)
  const off = top - parseFloat(getComputedStyle(isWhole ? document.documentElement : box).scrollPaddingTop)
  return off > 0 && box.scrollTop >= box.scrollHeight - box.clientHeight - 1 ? 0 : off
}

function standAt(isBelow) {
  const box = window.seen.box()
  for (const e of [box, ...document.querySelectorAll('*')])
    if (e.scrollTop > 0 || e === box) e.scrollTo({ top: isBelow && e === box ? e.scrollHeight : 0, behavior: 'instant' })
}
