/** No sticky targets. */
export const sticks = (): boolean => false
export const unstuck = <T>(el: HTMLElement, read: (el: HTMLElement) => T): T => read(el)
