/**
 * Drives a real browser from Node. `browser.ts` starts it, `page.ts` loads a page on a screen and calls the agent in it, `clock.ts`
 * advances the page's time, `mount.ts` answers requests, `trouble.ts` has the reasons for giving up.
 */
export { startBrowser, type DrivenBrowser } from './browser.ts'
export { mountFolder, type Mount } from './mount.ts'
export type { DrivenPage, PageAgent } from './page.ts'
export { BrowserGone, PageTrouble } from './trouble.ts'
