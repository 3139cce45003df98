/** A page that is another at every look. */
import { pageHeight, position } from '../page/scroller.ts'
import { isAnotherEachTime } from '../page/settle.ts'

/** It changes its height, or scrolls, by itself and without end: what was measured of it is of one moment. */
export const isRestless = (): Promise<boolean> => isAnotherEachTime(() => `${pageHeight()} ${position()}`)
