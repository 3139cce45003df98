import type { MeasuringTrouble } from '@waybell/core'

/** A page that can't be measured, or whose links can't be tried. */
export class PageTrouble extends Error {
  constructor(readonly kind: Exclude<MeasuringTrouble, 'restless'>) {
    super(`the page is ${kind}`)
  }
}

/** The browser ended, or the page's target went with it. */
export class BrowserGone extends Error {
  constructor(reason: string) {
    super(`the browser ended: ${reason}`)
  }
}
