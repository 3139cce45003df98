/** All links have the style's motion and the browser's address. */
import { box } from '../../page.ts'

export const setMotion = (): boolean => false
export const endMotion = (): void => undefined
export const isGliding = (): boolean => false
export const travel = (top: number): void => box.scrollTo({ top })
export const watchTravel = (): void => undefined
export const sayCurrent = (): void => undefined
