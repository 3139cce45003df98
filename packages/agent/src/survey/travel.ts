/** The page's own travel. */
import { innerScroller, viewHeight } from '../page/scroller.ts'
import type { Survey } from '@waybell/core/survey'

/** The page's own offset and motion. Percentages refer to the scroller's height. */
export function ownTravel(): Pick<Survey, 'padding' | 'smooth'> {
  const { scrollPaddingTop, scrollBehavior } = getComputedStyle(innerScroller() ?? document.documentElement)
  const length = parseFloat(scrollPaddingTop) || 0
  return { padding: scrollPaddingTop.endsWith('%') ? (length * viewHeight()) / 100 : length, smooth: scrollBehavior === 'smooth' }
}
