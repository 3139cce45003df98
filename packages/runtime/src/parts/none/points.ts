/** The page has no points. */
export const tabFrom = (): void => undefined
