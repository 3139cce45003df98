/** How the page travels by itself. */
import type { Survey } from '@waybell/core/survey'

/** The page's own offset and motion. A percentage is of the viewport's height. */
export function ownTravel(): Pick<Survey, 'padding' | 'smooth'> {
  const { scrollPaddingTop, scrollBehavior } = getComputedStyle(document.documentElement)
  const length = parseFloat(scrollPaddingTop) || 0
  return { padding: scrollPaddingTop.endsWith('%') ? (length * innerHeight) / 100 : length, smooth: scrollBehavior === 'smooth' }
}
