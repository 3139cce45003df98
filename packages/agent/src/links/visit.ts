/** One link of a walk: follows it from rest, as a click does, and reads the result. */
import { MADE_BAR, MENU } from '@waybell/core/contract'
import { reachNow, stayingBars } from '../survey/bars.ts'
import { followAsLink, targetOf } from './follow.ts'
import type { Visit } from '@waybell/core'
import { onPage, position, viewTop } from '../page/scroller.ts'
import { withoutMotion } from '../page/motion.ts'
import { moveTo, twoFrames, untilStill } from '../page/settle.ts'

/** @param from start position; beyond the end means the end */
export async function visit(hash: string, from: number): Promise<Visit> {
  const motion = withoutMotion()
  try {
    return await visited(hash, from)
  } finally {
    motion()
  }
}

async function visited(hash: string, from: number): Promise<Visit> {
  await moveTo(from)
  await untilStill(position, 100, 1500)
  const before = position()
  await followAsLink(hash)
  const top = () => targetOf(hash)?.getBoundingClientRect().top ?? 0
  // Without movement, no event ends it.
  const limit = performance.now() + (Math.abs(top()) < 4 ? 400 : 2500)
  while (position() === before && performance.now() < limit) await twoFrames()
  // The script may correct an arrival once the header is at rest. `scrollend` comes earlier, and doesn't come
  // nothing has to move.
  await untilStill(position, 600, 6000)
  const own = (document.querySelector(MADE_BAR)?.getBoundingClientRect().bottom ?? 0) - viewTop()
  return {
    scroll: position(),
    top: onPage(top()),
    covered: Math.max(own, reachNow(stayingBars())),
    current: document.querySelector(`[${MENU}] [aria-current="true"]`)?.getAttribute('href') ?? null,
  }
}
