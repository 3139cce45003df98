/** A page's source as it is told from another version of it. */
import type { PageReading, ParsedPage } from '../page/index.ts'

export interface Version {
  parsed: ParsedPage
  reading: PageReading
}
