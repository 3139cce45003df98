/** What is seen of the page at once. */
import type { Survey } from './survey.ts'

/** Its height in px: of the viewport, or of the element in which the page scrolls. */
export const viewHeight = ({ scroller, height }: Pick<Survey, 'scroller' | 'height'>): number => scroller?.height ?? height
