/** Limits of a page, and the error for exceeding one. */

/** Max size of a page: 20 MB. */
export const MAX_PAGE_BYTES = 20 * 1024 * 1024
/** Max nesting. Browsers flatten beyond 512, see `MAX_TARGET_DEPTH`. */
export const MAX_DEPTH = 4096
/** Max nesting of targets: beyond it, the browser's tree and the parser's differ. */
export const MAX_TARGET_DEPTH = 500

export type PageErrorCode = 'page-empty' | 'page-not-html' | 'page-too-big' | 'page-too-deep' | 'page-frameset' | 'zip'

/** A page that can't be read; `message` says why and what to do. */
export class PageError extends Error {
  constructor(
    readonly code: PageErrorCode,
    message: string,
  ) {
    super(message)
    this.name = 'PageError'
  }
}
