/** No menu has a class for its current item. */
export const markByClass = (): void => undefined
