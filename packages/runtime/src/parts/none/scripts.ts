/** No page scripts. */
export const watchMenus = (): void => undefined
export const overlook = (): void => undefined
export const watchPress = (): void => undefined
export const isTaken = (): boolean => false
export const placeOf = (): number | null => null
