/** The header has one size. */
import type { Settings } from '@waybell/core/contract'

export let own = -1
export const ahead = 0
export const growthOf = (): number => 0
export const standing = (): HTMLElement[] => []
export const forgetStates = (): void => void (own = -1)
export function tellApart(now: number, _: Settings, isMoving: boolean): void {
  if (!isMoving || own < 0) own = now
}
