/** What a handover is made from. */
import type { Survey } from '../arrival/index.ts'
import type { PageReading } from '../page/index.ts'
import type { Screen, SitePage } from '../site/index.ts'

export interface HandoverInput {
  page: SitePage
  /** All pages of the site. */
  pages: readonly SitePage[]
  reading: PageReading
  screens: readonly Screen[]
  /** By screen key; a screen that was not measured is estimated. */
  surveys: Readonly<Record<string, Survey>>
  /** The built script. */
  runtime: string
}

/** The widest viewport that takes its figures from `screen`: half way to the next wider one. */
export const boundary = (screen: Screen, wider: Screen | undefined): number => (wider ? Math.round((screen.width + wider.width) / 2) : 1e6)
