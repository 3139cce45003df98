/** For pages that the document scrolls. */
export const inner: HTMLElement | null = null
export const findInner = (): void => {}
