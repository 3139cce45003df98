/** No menu of the page has a class for its current item. */
export const markByClass = (): void => undefined
