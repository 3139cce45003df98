/**
 * Drives a real browser from Node. `browser.ts` starts it, `page.ts` loads a page on a screen and calls the agent in it, `clock.ts` moves
 * the page's time on, `mount.ts` answers what the page requests, `trouble.ts` says what can keep a page from being measured.
 */
export { startBrowser, type DrivenBrowser } from './browser.ts'
export { mountFolder, type Mount } from './mount.ts'
export type { DrivenPage, PageAgent } from './page.ts'
export { BrowserGone, PageTrouble } from './trouble.ts'
