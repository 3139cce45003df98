/** Pages that differ at every measurement. */
import { pageHeight, position } from '../page/scroller.ts'
import { isAnotherEachTime } from '../page/settle.ts'

/** It changes its height or scrolls endlessly, so measurements hold for a moment only. */
export const isRestless = (): Promise<boolean> => isAnotherEachTime(() => `${pageHeight()} ${position()}`)
