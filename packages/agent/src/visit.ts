/** One link of a walk: from rest, followed as a click does it, and what came of it. */
import { MADE_MENU, MENU } from '@waybell/core/contract'
import { reachNow, stayingBars } from './survey/bars.ts'
import { follow, targetOf } from './links.ts'
import type { Visit } from '@waybell/core'
import { jumpTo, onPage, position, viewTop } from './scroller.ts'
import { pause, untilSteady } from './settle.ts'

/** @param from where the page is to stand before; beyond the end is the end */
export async function visit(hash: string, from: number): Promise<Visit> {
  jumpTo(from)
  await untilSteady(() => `${position()}`)
  await pause(60)
  const ended = new Promise<void>((done) => addEventListener('scrollend', () => done(), { once: true, capture: true }))
  await follow(hash)
  const top = () => targetOf(hash)?.getBoundingClientRect().top ?? 0
  // Where nothing has to move, no end is told.
  await Promise.race([ended, pause(Math.abs(top()) < 4 ? 400 : 2500)])
  // The script in the page may put an arrival right once the header has come to rest.
  await pause(350)
  await untilSteady(() => `${position()}`, 4000)
  await pause(250)
  await untilSteady(() => `${position()}`)
  const own = (document.querySelector(MADE_MENU)?.getBoundingClientRect().bottom ?? 0) - viewTop()
  return {
    scroll: position(),
    top: onPage(top()),
    covered: Math.max(own, reachNow(stayingBars())),
    current: document.querySelector(`[${MENU}] [aria-current="true"]`)?.getAttribute('href') ?? null,
  }
}
