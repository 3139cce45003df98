/** No made menus. */
export const orderMade = (): void => undefined
export const passMade = (): void => undefined
export const showMade = (): void => undefined
export const watchMade = (): void => undefined
