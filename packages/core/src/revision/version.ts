/** One version of a page's source. */
import type { PageReading, ParsedPage } from '../page/index.ts'

export interface Version {
  parsed: ParsedPage
  reading: PageReading
}
