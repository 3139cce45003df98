/** The document scrolls. */
export const innerNow = (): HTMLElement | undefined => undefined
export const contentOf = (): Element[] => []
export const onPage = (y: number, box: Element): number => y + box.scrollTop
export const viewTopOf = (): number => 0
