/** No header: only the made bar covers, as in the style. */
import { COVER } from '@waybell/core/contract'
import { said } from '../../page.ts'

export let cover = 0
export function settleHeader(): void {
  cover = said(COVER)
}
export const forgetHeader = (): void => undefined
export const coveredBeyond = (): number => 0
export const putBack = (): void => undefined
