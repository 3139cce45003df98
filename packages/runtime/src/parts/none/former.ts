/** The page has no former IDs. */
export const renewHash = (): boolean => false
