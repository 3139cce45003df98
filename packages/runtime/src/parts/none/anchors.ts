/** No points or former IDs. */
export const renewHash = (): boolean => false
export const tabFrom = (): void => undefined
export const beginOf = (el: HTMLElement, _: unknown, topOf: (el: HTMLElement) => number): number => topOf(el)
