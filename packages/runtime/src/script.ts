/**
 * The page's script. It marks the current item and keeps `--wb-header` right: the covered height on arrival. Links, offsets and smooth
 * scrolling are CSS and work without it. Layout is read in one batch after it changed, or after a frame, when it's clean; never during
 * scrolling.
 */
import { bells, currentAt } from '@waybell/core/rule'
import { HEADER, type Settings } from '@waybell/core/contract'
import { findOpenings, forget, mark, readMenus } from './marks.ts'
import { all, root } from './elements.ts'
import {
  bare,
  elementOf,
  findBox,
  hasPlace,
  isHere,
  isReturn,
  jumpTo,
  lengthOf,
  maxScroll,
  padded,
  position,
  pressedLink,
  setBehavior,
  sectionOf,
  settings,
  TOP,
  topNow,
  topOf,
} from './page.ts'
import { beginOf, renewHash, tabFrom } from './parts/anchors.ts'
import { cover, coveredBeyond, forgetHeader, settleHeader } from './parts/header.ts'
import { passMade, watchMade } from './parts/made.ts'
import { isTaken, watchMenus, watchPress } from './parts/scripts.ts'
import { sticks } from './parts/sticky.ts'
import { endMotion, isGliding, sayCurrent, setMotion, travel, watchTravel } from './parts/travel.ts'
import { table, type Event as WayEvent, type State } from './way.ts'

let s: Settings
let sorted: { index: number; bell: number }[] = []
let ids: string[] = []
let state: State = 'rest'
/** What was followed: a section's ID or the top, and the link (none for an address). */
let goal: { id: string; link: Element | undefined } | undefined

/** The page at arrival: position, length, and the goal's distance from the viewport's top. */
let held: { at: number; length: number; gap: number; since: number }
/** The goal's position when the page set out. */
let aimed = 0

const isUnderWay = () => state[0] === 'u'
const isHeld = () => state[0] === 'h'

function tell(event: WayEvent): void {
  const [now, act] = table[state][event] ?? [state]
  state = now
  if (now === 'rest') goal = undefined
  if (now !== 'under way') endMotion()
  if (goal) {
    const { id } = goal
    if (act === 'aim') aim()
    if (act === 'set') jumpTo(wanted(id))
    if (act === 'keep') keep(id)
    else if (isHeld() && act) hold(id)
    if (event === 'there') {
      held.since = performance.now()
      tabFrom(id, s)
    }
  }
  draw()
}

/** Forgets the followed link. */
export const letGo = (): void => tell('history')

/** Where the browser stops for a section, plus what the header covers beyond that now. */
function landing(id: string): number {
  const el = elementOf(id)
  if (id === TOP) return 0
  if (!hasPlace(el)) return position()
  return beginOf(el, s, topOf) - lengthOf(getComputedStyle(padded()).scrollPaddingTop) - parseFloat(getComputedStyle(el).scrollMarginTop)
}
const reachable = (top: number) => Math.min(Math.max(0, Math.round(top)), maxScroll())
const wanted = (id: string) => reachable(landing(id) - (id === TOP ? 0 : coveredBeyond()))

/** The goal's distance below the viewport's top. */
function gapOf(id: string): number {
  const el = elementOf(id)
  return (hasPlace(el) ? beginOf(el, s, topOf) : 0) - position()
}

function hold(id: string): void {
  held = { ...held, at: position(), length: maxScroll(), gap: gapOf(id) }
}

function keep(id: string): void {
  const { gap } = held
  const by = gapOf(id) - gap
  if (id !== TOP && Math.abs(by) >= 1) jumpTo(position() + by)
  hold(id)
  // Differences below 1 px add up; what the page's end withholds doesn't.
  if (Math.abs(held.gap - gap) < 1) held.gap = gap
}

/**
 * Two frames later: the browser has started, and a page script that handles the press has it.
 * @param isOurs before the browser started, because the script scrolls
 */
function aim(isOurs?: boolean): void {
  const to = goal
  const go = () => {
    if (goal === to && isUnderWay() && !isTaken()) travel(wanted(to!.id))
  }
  requestAnimationFrame(isOurs ? go : () => requestAnimationFrame(go))
}

/** While under way, each frame is checked after it, where reading costs nothing. */
let watched: { y: number; since: number; frames: number; hasMoved: boolean }
/** Number of corrections on this way. */
let sets = 0
function setOut(id: string, isPressed: boolean): void {
  aimed = landing(id)
  sets = 0
  // After arriving by address, the browser may have jumped before any script.
  watched = { y: position(), since: performance.now(), frames: 0, hasMoved: !isPressed && position() > 0 }
  requestAnimationFrame(lookLater)
}

function watch(id: string): void {
  const y = position()
  if (isGliding() || Math.abs(y - watched.y) >= 1) {
    watched = { y, since: performance.now(), frames: 0, hasMoved: true }
    return
  }
  const isThere = !s.ownTravel && Math.abs(wanted(id) - y) < 1
  // A busy page may not have started, or still have movement left after a correction; a script that handles the press
  // may move the page in steps: a late frame isn't its end.
  const frames = isThere && sets ? 24 : isThere || watched.hasMoved ? 2 : 12
  const ms = isThere ? (sets ? 400 : 30) : frames * (isTaken() ? 150 : 30)
  if (++watched.frames >= frames && performance.now() - watched.since > ms)
    tell(isThere || s.ownTravel || sets++ > 2 ? 'there' : 'elsewhere')
}

let ticking = false
let resizing = false
const channel = new MessageChannel()
channel.port1.onmessage = () => {
  ticking = false
  if (goal && isUnderWay()) {
    watch(goal.id)
    if (isUnderWay()) requestAnimationFrame(lookLater)
  } else if (goal && !resizing && Math.abs(position() - held.at) > 1) {
    // Scroll anchoring kept the visible content in place.
    const isKept = Math.abs(gapOf(goal.id) - held.gap) <= 1
    const isShift = state === 'held' && Math.abs(position() - held.at) <= Math.abs(maxScroll() - held.length) + 1
    return tell(isKept || isShift ? 'shift' : 'scroll')
  }
  draw()
}
/** After the frame, where layout is clean; scroll events come within it. */
function lookLater(): void {
  if (!ticking) channel.port2.postMessage(0)
  ticking = true
}

function draw(): void {
  const id = goal ? goal.id : (ids[currentAt(sorted, position())] ?? TOP)
  mark(id, goal?.link)
  sayCurrent(id, s)
  passMade()
}

/** After a layout change: where sections are, and so when each is current. Runs before the frame is drawn. */
function measure(): void {
  const placed = s.sections.flatMap((id) => {
    const el = elementOf(id)
    // A target that the page moved up starts where its block does.
    const lift = el && s.shifted?.includes(id) ? parseFloat(getComputedStyle(el).scrollMarginTop) : 0
    return hasPlace(el) ? [{ id, top: beginOf(el, s, topNow) - lift }] : []
  })
  ids = placed.map((p) => p.id)
  sorted = bells(
    placed.map((p) => p.top),
    cover + s.bellOffset,
    maxScroll(),
  )
  findOpenings(sorted.map(({ index }) => ids[index]!))
  if (goal && isGliding()) travel(wanted(goal.id))
  // A scroll that isn't checked yet may be the visitor's.
  if (isHeld() && !ticking) tell('shift')
  else draw()
}

function settle(): void {
  findBox()
  settleHeader(s)
  resizing = false
  measure()
  // With its own offsets, the page or its script decides.
  if (!goal || s.ownTravel) return
  const { id } = goal
  if (isHeld() ? performance.now() - held.since < 500 : Math.abs(landing(id) - aimed) >= 1) {
    aimed = landing(id)
    tell('settled')
  }
}
let settling: ReturnType<typeof setTimeout>
function settleLater(): void {
  clearTimeout(settling)
  settling = setTimeout(settle, 100)
}

const observer = new ResizeObserver(() => {
  settleLater()
  measure()
})
/** Reads settings, menus and sections again. */
export function read(): void {
  s = settings()
  observer.disconnect()
  const menus = readMenus(s)
  forgetHeader()
  for (const el of [root, document.body, ...findBox(), ...all(`[${HEADER}]`), ...menus, ...s.sections.map(elementOf)])
    if (el) observer.observe(el, { box: 'border-box' })
  watchMenus(menus, (hasOtherLinks) => {
    if (hasOtherLinks) return read()
    forget()
    draw()
  })
  settle()
}

/** A hash that was requested here and will come. */
let asked: string | undefined
/** Announces a hash change for what was followed. */
export const expectHash = (hash: string): void => void (asked = hash)

/** The browser goes back or forward, if it says so. */
let traverses = false
/** Newer engines tell history navigation from other hash changes. */
const { navigation } = window as { navigation?: Navigation }

/**
 * Going back or forward isn't an arrival: the browser restores the visitor's position, before or after the event. An arrival was
 * requested here, or isn't history navigation according to the browser.
 */
function onHash(): void {
  const isAsked = location.hash === asked
  asked = undefined
  if (!isAsked && (!navigation || traverses)) tell('history')
  else if (renewHash(s)) asked = location.hash
  // Known already for a press.
  else if (!isAsked || !goal) follow(location.hash)
}

/** @param link that was pressed; none for an address @param event the press, while a page script may still handle it */
export function follow(hash: string, link?: Element, event?: Event): void {
  watchPress(event, setBehavior)
  const id = sectionOf(hash, s)
  goal = id === undefined ? id : { id, link }
  tell(goal ? 'asked' : 'asked for none')
  if (id === undefined) return
  setOut(id, !!link)
  // Browsers don't scroll to a stuck element.
  if (setMotion(id, s, link, event) || sticks(elementOf(id))) aim(true)
}

function onClick(event: MouseEvent): void {
  const link = pressedLink(event)
  if (!link || !isHere(link)) return
  const { hash } = link
  // A `base` leads elsewhere, but the link means this page.
  const isSentAway = bare(link.href) !== bare(location.href)
  if (isSentAway) {
    event.preventDefault()
    location.hash = hash
  }
  asked = hash
  follow(hash, link, isSentAway ? undefined : event)
  // A bare “#” that a script handles is a button. Other scripts scroll in steps, which smooth scrolling would slow down.
  requestAnimationFrame(() => isTaken() && (hash ? setBehavior('auto') : tell('history')))
}

/** Once the page's elements exist. */
export function start(): void {
  read()
  watchMade()
  watchTravel(aim)
  addEventListener('scroll', lookLater, true)
  addEventListener('click', onClick, true)
  addEventListener('hashchange', onHash)
  navigation?.addEventListener('navigate', ({ navigationType }) => (traverses = navigationType === 'traverse'))
  // Between entries with the same hash there is no `hashchange`.
  addEventListener('popstate', () => {
    if (navigation ? traverses : location.hash !== asked) tell('history')
  })
  addEventListener('resize', () => {
    resizing = true
    settleLater()
  })
  for (const type of ['wheel', 'touchmove', 'keydown', 'pointerdown'])
    addEventListener(type, () => goal && tell('hand'), { passive: true, capture: true })
  for (const type of ['transitionend', 'transitioncancel', 'animationend']) addEventListener(type, settleLater)
  if (renewHash(s)) asked = location.hash
  else if (location.hash && !isReturn) follow(location.hash)
}
