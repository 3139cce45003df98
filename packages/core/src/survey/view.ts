/** The visible part of the page. */
import type { Survey } from './survey.ts'

/** Visible height in px: the viewport's, or the scroller's. */
export const viewHeight = ({ scroller, height }: Pick<Survey, 'scroller' | 'height'>): number => scroller?.height ?? height
