/**
 * For pages with scripts of their own. One that marks items too has them marked as they are to be: never two at once; links that it adds are taken
 * in. Once in a frame at most, so that two who answer each other keep nobody waiting.
 */
let isWaiting = false
let observer: MutationObserver | undefined

/** @param answer what is done once others have changed something in the menus */
export function watchMenus(menus: readonly Element[], answer: () => void): void {
  observer?.disconnect()
  observer = new MutationObserver(() => {
    if (isWaiting) return
    isWaiting = true
    requestAnimationFrame(() => {
      isWaiting = false
      answer()
    })
  })
  for (const menu of menus) observer.observe(menu, { subtree: true, childList: true, attributeFilter: ['class', 'aria-current'] })
}

/** What was done by ourselves is nothing that the page did. */
export const overlook = (): void => void observer?.takeRecords()
