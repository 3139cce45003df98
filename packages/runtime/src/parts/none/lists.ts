/** No menu has lists that open. */
export const markOpeners = (): void => undefined
