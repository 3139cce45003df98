/** The bounds of what is read as a page, and the error that names the one that was passed. */

/** Most bytes of one page: 20 MB. */
export const MAX_PAGE_BYTES = 20 * 1024 * 1024
/** Deepest nesting that is read. The browser flattens beyond 512, see `MAX_TARGET_DEPTH`. */
export const MAX_DEPTH = 4096
/** Deepest nesting at which an element is offered as a target: beyond it the browser's tree and the parser's differ. */
export const MAX_TARGET_DEPTH = 500

export type PageErrorCode = 'page-empty' | 'page-not-html' | 'page-too-big' | 'page-too-deep' | 'page-frameset' | 'zip'

/** A page that cannot be read; `message` says what is wrong and what to do. */
export class PageError extends Error {
  constructor(
    readonly code: PageErrorCode,
    message: string,
  ) {
    super(message)
    this.name = 'PageError'
  }
}
