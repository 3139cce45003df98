/** One link of a walk: from rest, followed as a click does it, and what came of it. */
import { MADE_MENU, MENU } from '@waybell/core/contract'
import { reachNow, stayingBars } from './survey/bars.ts'
import { follow, targetOf } from './links.ts'
import type { Visit } from '@waybell/core'
import { jumpTo, pause, untilSteady } from './settle.ts'

/** @param from where the page is to stand before; beyond the end is the end */
export async function visit(hash: string, from: number): Promise<Visit> {
  jumpTo(from)
  await untilSteady(() => `${scrollY}`)
  await pause(60)
  const ended = new Promise<void>((done) => addEventListener('scrollend', () => done(), { once: true }))
  await follow(hash)
  const top = () => targetOf(hash)?.getBoundingClientRect().top ?? 0
  // Where nothing has to move, no end is told.
  await Promise.race([ended, pause(Math.abs(top()) < 4 ? 400 : 2500)])
  // The script in the page may put an arrival right once the header has come to rest.
  await pause(350)
  await untilSteady(() => `${scrollY}`, 4000)
  await pause(250)
  await untilSteady(() => `${scrollY}`)
  const own = document.querySelector(MADE_MENU)?.getBoundingClientRect().bottom ?? 0
  return {
    scroll: scrollY,
    top: top() + scrollY,
    covered: Math.max(own, reachNow(stayingBars())),
    current: document.querySelector(`[${MENU}] [aria-current="true"]`)?.getAttribute('href') ?? null,
  }
}
