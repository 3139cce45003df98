/** How the script finds elements. */

export const root = document.documentElement
export const all = <T extends Element = HTMLElement>(selector: string, from: ParentNode = document): T[] => [
  ...from.querySelectorAll<T>(selector),
]
export const linksIn = (menu: HTMLElement): HTMLAnchorElement[] => all('a[href]', menu)
