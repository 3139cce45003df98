/**
 * Waits until the page is at rest: no pending tasks (`pending.ts`), animations over, by events if possible. Time decides only for pages
 * that never rest. Hidden frames get no animation frames, so every wait has a limit.
 */
import { furthest, innerScroller, jumpTo, pageHeight, position, viewHeight } from './scroller.ts'
import { done, idle, isRunningOn, nextFrame, now, pause, pending } from './pending.ts'

/** Max wait for a frame, in ms: if frames are drawn, even late, and if the last one didn't come. */
const PATIENCE = { drawn: 3000, blind: 250 }
let patience = PATIENCE.drawn

/** One frame, or a short pause if none is drawn, as in a hidden tab. */
async function drawn(): Promise<void> {
  const isDrawn = await Promise.race([nextFrame().then(() => true), pause(document.hidden ? PATIENCE.blind : patience).then(() => false)])
  patience = isDrawn ? PATIENCE.drawn : PATIENCE.blind
}

/** One frame, with its intersection events. @param within called in the frame */
export async function aFrame(within?: () => void): Promise<void> {
  await drawn()
  within?.()
  await pause(0)
}

export async function twoFrames(): Promise<void> {
  await drawn()
  await drawn()
}

/** Scrolls at once, and waits for the scroll event: a busy machine would merge two moves into one. */
export async function moveTo(top: number): Promise<void> {
  const before = position()
  jumpTo(top)
  if (position() === before) return
  const told = new Promise<void>((done) => (innerScroller() ?? document).addEventListener('scroll', () => done(), { once: true }))
  // Hidden pages get no events.
  await Promise.race([told, pause(document.hidden ? 0 : PATIENCE.drawn)])
  await pause(0)
}

/** Finite animations; paused ones don't end. */
const running = (): Animation[] =>
  document
    .getAnimations()
    .filter((a) => a.playState === 'running' && a.playbackRate !== 0 && isFinite(Number(a.effect?.getComputedTiming().endTime)))

/** In virtual time, the driver is told how long no frame is needed. */
const driver = (window as { wayBellIdle?: (ms: string) => void }).wayBellIdle
const skip = (ms: number): void => {
  if (ms > FRAME) driver?.(String(Math.ceil(ms)))
}
/** Max time without a frame while something moves, in ms. */
const MOTION = 250
/** Skips frames until animations end. Called in a frame, so the next one is the one after. */
function skipMotion(): void {
  const left = running().map((a) => (Number(a.effect!.getComputedTiming().endTime) - Number(a.currentTime)) / Math.abs(a.playbackRate))
  if (left.length) skip(Math.min(MOTION, ...left))
}
/** In ms. */
const FRAME = 1000 / 60

/** Max wait for a busy page, in ms. */
const LIMIT = 2500
/** Frames. In virtual time messages arrive before the next frame; in real time they may be late. */
const QUIET = driver ? 1 : 2
/** The page was always busy. */
let isBusy = false

/**
 * Resolves once the page had nothing to do for `QUIET` frames.
 * @param instead wait for a page that is always busy, in ms, because no event ends it
 * @param motion awaited, or finished at once
 * @returns false if it never rested
 */
export async function untilQuiet(instead = 150, motion: 'awaited' | 'ended' = 'awaited', limit = LIMIT): Promise<boolean> {
  const [isMoving, within] = motion === 'ended' ? [finishMotion] : [() => running().length > 0, skipMotion]
  const isAtWork = () => pending() > 0
  isBusy &&= isAtWork()
  const began = now()
  const end = began + (isBusy ? instead : limit)
  // Endless tasks may respond to what was just done.
  const least = began + (isRunningOn() ? instead : 0)
  // A link scrolls within a frame; the page gets the event in the next.
  const last = () => `${done()} ${position()} ${scrollY}`
  let before = last()
  await aFrame(within)
  for (let quiet = 0; now() < end;) {
    const moves = isMoving()
    // A message in transit is no task yet; only idle frames tell.
    quiet = moves || isAtWork() || last() !== before || now() < least ? 0 : quiet + 1
    if (quiet === QUIET) break
    before = last()
    if (!moves && isAtWork()) skip(idle())
    await aFrame(within)
  }
  // Animations that started do end.
  for (const until = now() + LIMIT; isMoving() && now() < until;) await aFrame(within)
  isBusy ||= isAtWork()
  return !isBusy && !isRunningOn()
}

/** Resolves once quiet and `read` is the same in two frames; at most `limit` ms. */
export async function untilSteady(read: () => string, limit = 1500): Promise<void> {
  const end = now() + limit
  await untilQuiet(60)
  for (let before = read(); now() < end;) {
    await aFrame()
    const next = read()
    if (next === before) return
    before = next
  }
}

/** Finishes animations. @returns true if there were any */
function finishMotion(): boolean {
  const left = running()
  for (const animation of left) animation.finish()
  return left.length > 0
}

/** The same, finishing animations. */
export async function untilThere(read: () => string): Promise<void> {
  const end = now() + 1500
  await untilQuiet(60, 'ended')
  for (let before = read(); now() < end;) {
    await aFrame()
    const next = read()
    if (!finishMotion() && next === before) return
    before = next
  }
}

/** Frames without movement: a stalled machine draws none, and a glide's end moves less than 1 px in some. */
const STILL_FRAMES = 8

/**
 * Resolves once `read()` has been stable for `quiet` ms over several frames, without finite animations; at most `limit` ms. For motion
 * that no event ends.
 */
export async function untilStill(read: () => number, quiet: number, limit: number): Promise<void> {
  const end = now() + limit
  for (let before = read(), since = now(), frames = 0; now() < end;) {
    await twoFrames()
    frames += 2
    const next = read()
    if (next !== before || running().length) [before, since, frames] = [next, now(), 0]
    else if (frames >= STILL_FRAMES && now() - since >= quiet) return
  }
}

/** True when `read` differs at each of several looks; two equal ones settle it. */
export async function isAnotherEachTime(read: () => string): Promise<boolean> {
  for (let looks = 0, before = read(); looks < 6; looks++) {
    await aFrame()
    // A page with its own clock has moved by then; only another look tells.
    await pause(40)
    const next = read()
    if (next === before) return false
    before = next
  }
  return true
}

/** Resolves once fonts and pictures are loaded. */
export async function untilLoaded(limit = 8000): Promise<void> {
  const end = now() + limit
  const wait = (p: Promise<unknown>) => Promise.race([p.catch(() => undefined), pause(Math.max(0, end - now()))])
  if (document.readyState !== 'complete') await wait(new Promise((done) => addEventListener('load', done, { once: true })))
  await wait(document.fonts.ready)
  const pictures = [...document.images].filter((i) => !i.complete && i.loading !== 'lazy')
  if (pictures.length) await wait(Promise.all(pictures.map((i) => i.decode())))
}

/** Resolves once the frame has the requested size. */
export async function untilSize({ width, height }: { width: number; height: number }, limit = 2000): Promise<void> {
  const isSo = () => innerWidth === width && innerHeight === height
  for (const end = now() + limit; !isSo() && now() < end;)
    await Promise.race([new Promise((done) => addEventListener('resize', done, { once: true })), pause(100)])
}

/** Scrolls through the page first, so that late parts and pictures load. @param look called at each stop */
export async function throughThePage(look?: () => void): Promise<void> {
  for (let y = 0, n = 0; y < furthest() && n < 60; y += viewHeight() * 0.8, n++) {
    jumpTo(y)
    await aFrame()
    look?.()
  }
  await untilSteady(() => `${pageHeight()}`, 1000)
}
