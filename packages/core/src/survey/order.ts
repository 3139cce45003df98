/** A fixed order of surveys, so that results don't depend on arrival order. */
import type { Survey } from './survey.ts'

/** The widest screen first. */
export const inScreenOrder = (surveys: Iterable<Survey>): Survey[] =>
  [...surveys].sort((a, b) => b.width - a.width || b.height - a.height || (a.screen < b.screen ? -1 : 1))
