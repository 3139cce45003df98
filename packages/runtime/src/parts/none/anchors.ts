/** The page has neither points nor former IDs. */
export const renewHash = (): boolean => false
export const tabFrom = (): void => undefined
export const standIn = (): { el: HTMLElement; below: number } | undefined => undefined
