/** The page has no scripts of its own. */
export const watchMenus = (): void => undefined
export const overlook = (): void => undefined
