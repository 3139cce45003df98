/** Waiting until the page has come to rest. Timers bound every wait: a frame out of sight gets no animation frames. */
import { furthest, innerScroller, jumpTo, pageHeight, position, viewHeight } from './scroller.ts'

export const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

/** Two frames. A busy machine may take its time for them; where there are none at all, as in a tab out of sight, half a second has to do. */
export function twoFrames(): Promise<void> {
  return Promise.race([new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done()))), pause(500)])
}

/** One frame, and what the browser tells of it to those who watch what comes into view. */
export async function aFrame(): Promise<void> {
  await Promise.race([new Promise<void>((done) => requestAnimationFrame(() => done())), pause(250)])
  await pause(0)
}

/** How long a page that is seen may take until it is told that it was moved, in ms. */
const TOLD = 3000

/** Moves the page at once, and waits until it was told of it: what a busy machine tells of two moves at once, the page takes for one. */
export async function moveTo(top: number): Promise<void> {
  const before = position()
  jumpTo(top)
  if (position() === before) return
  const told = new Promise<void>((done) => (innerScroller() ?? document).addEventListener('scroll', () => done(), { once: true }))
  // Out of sight nothing is told.
  await Promise.race([told, pause(document.hidden ? 0 : TOLD)])
  await pause(0)
}

/** What moves and comes to an end; one that is held still has none. */
const running = (): Animation[] =>
  document
    .getAnimations()
    .filter((a) => a.playState === 'running' && a.playbackRate !== 0 && isFinite(Number(a.effect?.getComputedTiming().endTime)))

/** Until no finite animation runs and `read` gives the same twice; at most `limit` ms. */
export async function untilSteady(read: () => string, limit = 1500, moving = () => running().length > 0): Promise<void> {
  const end = performance.now() + limit
  await aFrame()
  for (let before = read(); performance.now() < end;) {
    await aFrame()
    await pause(20)
    const now = read()
    if (!moving() && now === before) return
    before = now
  }
}

/** The same where only the end of it is wanted: what moves is put there. */
export const untilThere = (read: () => string): Promise<void> =>
  untilSteady(read, 1500, () => {
    const left = running()
    for (const animation of left) animation.finish()
    return left.length > 0
  })

/** So many frames in which nothing moved: a machine that stalls draws none, and the end of a glide moves by less than a pixel in some. */
const STILL_FRAMES = 8

/** Until `read` gave the same for as long as `quiet` ms, over several frames, and no finite animation runs; at most `limit` ms. */
export async function untilStill(read: () => number, quiet: number, limit: number): Promise<void> {
  const end = performance.now() + limit
  for (let before = read(), since = performance.now(), frames = 0; performance.now() < end;) {
    await twoFrames()
    frames += 2
    const now = read()
    if (now !== before || running().length) [before, since, frames] = [now, performance.now(), 0]
    else if (frames >= STILL_FRAMES && performance.now() - since >= quiet) return
  }
}

/** True where `read` gives something else at each of several looks; where two are the same, that is known at once. */
export async function isAnotherEachTime(read: () => string): Promise<boolean> {
  for (let looks = 0, before = read(); looks < 6; looks++) {
    await aFrame()
    await pause(40)
    const now = read()
    if (now === before) return false
    before = now
  }
  return true
}

/** Until fonts and pictures are in. */
export async function untilLoaded(limit = 8000): Promise<void> {
  const end = performance.now() + limit
  const wait = (p: Promise<unknown>) => Promise.race([p.catch(() => undefined), pause(Math.max(0, end - performance.now()))])
  if (document.readyState !== 'complete') await wait(new Promise((done) => addEventListener('load', done, { once: true })))
  await wait(document.fonts.ready)
  const pictures = [...document.images].filter((i) => !i.complete && i.loading !== 'lazy')
  await wait(Promise.all(pictures.map((i) => i.decode())))
}

/** Until the frame has the size that is asked for; a resize reaches it after the one who asks. */
export async function untilSize({ width, height }: { width: number; height: number }, limit = 2000): Promise<void> {
  const end = performance.now() + limit
  while ((innerWidth !== width || innerHeight !== height) && performance.now() < end) await pause(4)
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
