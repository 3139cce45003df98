/** What a handover is made from, for tests: of a page alone, that nobody has measured. */
import type { PageReading } from '../page/index.ts'
import { defaultScreens, type SitePage } from '../site/index.ts'
import type { HandoverInput } from './input.ts'

export const anInput = (page: SitePage, reading: PageReading, over: Partial<HandoverInput> = {}): HandoverInput => ({
  page,
  pages: [page],
  reading,
  screens: defaultScreens,
  surveys: {},
  named: [],
  runtime: () => '/* data-wb --wb-header */',
  ...over,
})
