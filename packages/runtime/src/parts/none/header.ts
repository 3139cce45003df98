/** The page has no header: what covers is the made menu's bar, as the style says. */
import { COVER } from '@waybell/core/contract'
import { root } from '../../page.ts'

export let cover = 0
export function settleHeader(): boolean {
  cover = parseFloat(getComputedStyle(root).getPropertyValue(COVER)) || 0
  return true
}
export const forgetHeader = (): void => undefined
export const coveredBeyond = (): number => 0
