/** All links travel as the style says, and browsers write the address. */
import { box } from '../../page.ts'

export const setMotion = (): boolean => false
export const endMotion = (): void => undefined
export const isGliding = (): boolean => false
export const travel = (top: number): void => box.scrollTo({ top })
export const watchTravel = (): void => undefined
export const sayCurrent = (): void => undefined
