/** A tried link for tests, right by default. */
import type { Tried } from './tried.ts'

export const aTried = (over: Partial<Tried> & Pick<Tried, 'id' | 'label' | 'scroll'>): Tried => ({
  at: null,
  href: `#${over.id}`,
  top: null,
  below: null,
  target: 'shown',
  leaves: false,
  overlay: '',
  isSideways: false,
  coveredBy: null,
  mark: 'right',
  isTaken: false,
  astray: 0,
  menu: '',
  leftOpen: null,
  sizeProblems: [],
  ...over,
})
