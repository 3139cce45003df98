/** Stands alone: says on the header where the page is, so that its style can be another there. Nothing is moved by it. */
import { AT, decodeFragment, MOVES } from '@waybell/core/contract'
import { innerNow, viewTopOf } from '../parts/scroller.ts'

const here = document as Document & { wbMoves?: true }
let header: Element | null = null
/** Where the visitor turned last, or has come since; in px. */
let turn = 0
let isDown = false
/** How long the page is, in px; by how much that has changed lately, and when last. */
let length = 0
let changed = 0
let changedAt = 0
/** How high the header is before the page has moved, in px: what it goes by is not to change with what it does. */
let tall = 0

/** Less than this is no turn, in px. */
const TURN = 8
/** A header that shrinks bit by bit has done so, and what arrived meanwhile was put right, within this time, on a busy machine too, in ms. */
const LATELY = 9000

function look(): void {
  if (!header?.hasAttribute(MOVES)) header = document.querySelector(`[${MOVES}]`)
  if (!header) return
  const inner = innerNow()
  const { scrollTop: y, scrollHeight } = inner ?? document.scrollingElement!
  // By as much as the page became longer or shorter, its place may have changed by that: a header that shrinks is no visitor who turns.
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
  // In a live page the work changes under it.
  for (const event of ['DOMContentLoaded', 'waybell']) document.addEventListener(event, look)
}
look()
