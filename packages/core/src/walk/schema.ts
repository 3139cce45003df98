/** The shape of a link that was tried. The agent runs in a page that isn't trusted, so its results are checked. */
import { shapes as s, type Shape } from '../shape/index.ts'
import { MARKED, SIZE_PROBLEMS, TARGETS, type Stop, type Tried } from './tried.ts'

type ShapesOf<T> = { [K in keyof Required<T>]: Shape }

const stop: ShapesOf<Stop> = { scroll: s.length, top: s.length.allow(null), coveredBy: s.text.allow(null) }

const tried: ShapesOf<Tried> = {
  ...stop,
  at: s.at.allow(null),
  label: s.text,
  href: s.text,
  id: s.text,
  target: s.oneOf(...TARGETS),
  leaves: s.is,
  below: s.object({ ...stop }).allow(null),
  overlay: s.text,
  isSideways: s.is,
  mark: s.oneOf(...MARKED),
  isTaken: s.is,
  astray: s.length,
  menu: s.text,
  leftOpen: s.object({ menu: s.at.allow(null), by: s.at.allow(null) }).allow(null),
  sizeProblems: s.array(s.oneOf(...SIZE_PROBLEMS), SIZE_PROBLEMS.length),
}

export const triedSchema = s.object({ ...tried })
