/** What to survey on a page, and what of it affects the reading. */
import type { Looks, PageReading } from '../page/index.ts'
import type { Survey } from './survey.ts'

export const surveyRequest = (reading: PageReading) => ({
  parts: reading.candidates.map(({ at, heading, block }) => ({ at, heading, block })),
  header: reading.header,
  menus: reading.menus.filter((m) => m.place !== 'text').map((m) => m.at),
  looks: reading.lacksHeadings,
})

/** Headings by look, from the screen that shows most. */
export const looksOf = (surveys: readonly Survey[]): Looks =>
  surveys.reduce<Looks>((most, { looks }) => (looks.length > most.length ? looks : most), [])
