/** Separate script: says on the header where the page is, for its style. Moves nothing. */
import { AT, decodeFragment, MOVES } from '@waybell/core/contract'
import { innerNow, viewTopOf } from '../parts/scroller.ts'

const here = document as Document & { wbMoves?: true }
let header: Element | null = null
/** Where the visitor last changed direction, or has come since; in px. */
let turn = 0
let isDown = false
/** The page's length in px; its latest change, and when. */
let length = 0
let changed = 0
let changedAt = 0
/** The header's height before scrolling, in px: decisions must not depend on what they change. */
let tall = 0

/** Smaller movements aren't a change of direction, in px. */
const TURN = 8
/** Max time for a header to shrink and an arrival to be corrected, also on a busy machine, in ms. */
const LATELY = 9000

function look(): void {
  if (!header?.hasAttribute(MOVES)) header = document.querySelector(`[${MOVES}]`)
  if (!header) return
  const inner = innerNow()
  const { scrollTop: y, scrollHeight } = inner ?? document.scrollingElement!
  // Length changes may shift the position: a shrinking header isn't a visitor who turns.
  const shift = Math.abs(scrollHeight - length)
  length = scrollHeight
  const now = performance.now()
  changed = shift + (now - changedAt < LATELY ? changed : 0)
  if (shift) changedAt = now
  const isTurn = (isDown ? y < turn : y > turn) && Math.abs(y - turn) > TURN + Math.max(shift, Math.min(changed, tall))
  if (isTurn) isDown = !isDown
  if (isTurn || shift || (isDown ? y > turn : y < turn)) turn = y
  const [after, away] = header.getAttribute(MOVES)!.split(' ')
  const was = header.getAttribute(AT)
  if (!was || was === 'top') tall = header.clientHeight
  const first = after![0] === '#' && document.getElementById(decodeFragment(after!.slice(1)))
  const isTop = first ? first.getBoundingClientRect().bottom > viewTopOf(inner) + tall : y <= +after!
  const at = isTop ? 'top' : away && isDown ? 'moved away' : 'moved'
  if (was !== at) header.setAttribute(AT, at)
}

if (!here.wbMoves) {
  here.wbMoves = true
  addEventListener('scroll', look, { passive: true, capture: true })
  addEventListener('load', look)
  // In a live page, edits change it.
  for (const event of ['DOMContentLoaded', 'waybell']) document.addEventListener(event, look)
}
look()
