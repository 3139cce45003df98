/** No menu of the page has a list that opens. */
export const markOpeners = (): void => undefined
