/**
 * Waiting until the page has come to rest: until its own tasks are done and its animations over (`pending.ts`), by events where there are
 * any. Time alone decides only where a page never rests. A frame out of sight gets no animation frames, so every wait has a bound.
 */
import { furthest, innerScroller, jumpTo, pageHeight, position, viewHeight } from './scroller.ts'
import { done, idle, isRunningOn, nextFrame, now, pause, pending } from './pending.ts'

/** Longest wait for a frame, in ms: where frames are drawn, which a busy machine may do late, and where the last one didn't come. */
const PATIENCE = { drawn: 3000, blind: 250 }
let patience = PATIENCE.drawn

/** One frame, or a moment where none is drawn, as in a tab out of sight. */
async function drawn(): Promise<void> {
  const isDrawn = await Promise.race([nextFrame().then(() => true), pause(document.hidden ? PATIENCE.blind : patience).then(() => false)])
  patience = isDrawn ? PATIENCE.drawn : PATIENCE.blind
}

/** One frame, and what the browser tells of it to those who watch what comes into view. @param within is called in the frame */
export async function aFrame(within?: () => void): Promise<void> {
  await drawn()
  within?.()
  await pause(0)
}

export async function twoFrames(): Promise<void> {
  await drawn()
  await drawn()
}

/** Moves the page at once, and waits until it was told of it: what a busy machine tells of two moves at once, the page takes for one. */
export async function moveTo(top: number): Promise<void> {
  const before = position()
  jumpTo(top)
  if (position() === before) return
  const told = new Promise<void>((done) => (innerScroller() ?? document).addEventListener('scroll', () => done(), { once: true }))
  // Out of sight nothing is told.
  await Promise.race([told, pause(document.hidden ? 0 : PATIENCE.drawn)])
  await pause(0)
}

/** What moves and comes to an end; one that is held still has none. */
const running = (): Animation[] =>
  document
    .getAnimations()
    .filter((a) => a.playState === 'running' && a.playbackRate !== 0 && isFinite(Number(a.effect?.getComputedTiming().endTime)))

/** A driver in virtual time that can be told for how many ms it needs to draw no frame. */
const driver = (window as { wayBellIdle?: (ms: string) => void }).wayBellIdle
const skip = (ms: number): void => {
  if (ms > FRAME) driver?.(String(Math.ceil(ms)))
}
/** Longest time without a frame while something moves, in ms. */
const MOTION = 250
/** No frame until what moves has come to its end. Told within a frame, so that the next one is the one after that. */
function skipMotion(): void {
  const left = running().map((a) => (Number(a.effect!.getComputedTiming().endTime) - Number(a.currentTime)) / Math.abs(a.playbackRate))
  if (left.length) skip(Math.min(MOTION, ...left))
}
/** In ms. */
const FRAME = 1000 / 60

/** How long a page is waited for that has something to do, in ms. */
const LIMIT = 2500
/** Frames. In virtual time what the page sends itself arrives before the next one; in real time a busy machine may be late with it. */
const QUIET = driver ? 1 : 2
/** The page was seen to have something to do at all times. */
let isBusy = false

/**
 * Resolves once the page has had nothing left to do in `QUIET` frames.
 * @param instead how long a page is waited for that always has something to do, in ms: no event tells when it has answered
 * @param motion is waited for, or put to its end
 * @returns false where it was not seen to rest
 */
export async function untilQuiet(instead = 150, motion: 'awaited' | 'ended' = 'awaited', limit = LIMIT): Promise<boolean> {
  const [isMoving, within] = motion === 'ended' ? [finishMotion] : [() => running().length > 0, skipMotion]
  const isAtWork = () => pending() > 0
  isBusy &&= isAtWork()
  const began = now()
  const end = began + (isBusy ? instead : limit)
  // What runs on is at work at all times, and may be so for what was done now.
  const least = began + (isRunningOn() ? instead : 0)
  // A link moves the page within a frame, and the page is told of it in the next.
  const last = () => `${done()} ${position()} ${scrollY}`
  let before = last()
  await aFrame(within)
  for (let quiet = 0; now() < end;) {
    const moves = isMoving()
    // Until a message that a page sends itself arrives it has no task, though it has more to do: frames without any tell.
    quiet = moves || isAtWork() || last() !== before || now() < least ? 0 : quiet + 1
    if (quiet === QUIET) break
    before = last()
    if (!moves && isAtWork()) skip(idle())
    await aFrame(within)
  }
  // Motion that was begun has an end all the same.
  for (const until = now() + LIMIT; isMoving() && now() < until;) await aFrame(within)
  isBusy ||= isAtWork()
  return !isBusy && !isRunningOn()
}

/** Quiet, and `read` gives the same in two frames; at most `limit` ms. */
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

/** Puts what moves to its end. @returns true where something did */
function finishMotion(): boolean {
  const left = running()
  for (const animation of left) animation.finish()
  return left.length > 0
}

/** The same where only the end of it is wanted: what moves is put there. */
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

/** So many frames in which nothing moved: a machine that stalls draws none, and the end of a glide moves by less than a pixel in some. */
const STILL_FRAMES = 8

/**
 * Resolves once `read` gave the same for as long as `quiet` ms, over several frames, and no finite animation runs; at most `limit` ms. For motion
 * that no event ends: the browser's own, and that of a page that never rests.
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

/** True where `read` gives something else at each of several looks; where two are the same, that is known at once. */
export async function isAnotherEachTime(read: () => string): Promise<boolean> {
  for (let looks = 0, before = read(); looks < 6; looks++) {
    await aFrame()
    // A page that moves by a clock of its own does so by then. Its timers are known, but not what they will do: only a look tells.
    await pause(40)
    const next = read()
    if (next === before) return false
    before = next
  }
  return true
}

/** Until fonts and pictures are in. */
export async function untilLoaded(limit = 8000): Promise<void> {
  const end = now() + limit
  const wait = (p: Promise<unknown>) => Promise.race([p.catch(() => undefined), pause(Math.max(0, end - now()))])
  if (document.readyState !== 'complete') await wait(new Promise((done) => addEventListener('load', done, { once: true })))
  await wait(document.fonts.ready)
  const pictures = [...document.images].filter((i) => !i.complete && i.loading !== 'lazy')
  if (pictures.length) await wait(Promise.all(pictures.map((i) => i.decode())))
}

/** Until the frame has the size that is asked for; a resize reaches it after the one who asks. */
export async function untilSize({ width, height }: { width: number; height: number }, limit = 2000): Promise<void> {
  const isSo = () => innerWidth === width && innerHeight === height
  for (const end = now() + limit; !isSo() && now() < end;)
    await Promise.race([new Promise((done) => addEventListener('resize', done, { once: true })), pause(100)])
}

/** Parts that come in on the way, and pictures that load late, are brought in first. @param look at each place of the way */
export async function throughThePage(look?: () => void): Promise<void> {
  for (let y = 0, n = 0; y < furthest() && n < 60; y += viewHeight() * 0.8, n++) {
    jumpTo(y)
    await aFrame()
    look?.()
  }
  await untilSteady(() => `${pageHeight()}`, 1000)
}
