/** A link as it was tried, for tests: right in everything that a test does not say. */
import type { Tried } from './tried.ts'

export const aTried = (over: Partial<Tried> & Pick<Tried, 'id' | 'label' | 'scroll'>): Tried => ({
  at: null,
  href: `#${over.id}`,
  top: null,
  below: null,
  hasTarget: true,
  hasBox: true,
  leaves: false,
  overlay: '',
  isSideways: false,
  isCovered: false,
  coveredBy: '',
  isLit: true,
  isSeen: true,
  isAlone: true,
  isTaken: false,
  astray: 0,
  menu: '',
  leftOpen: null,
  isTight: false,
  isCut: false,
  isWrapped: false,
  ...over,
})
