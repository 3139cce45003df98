/** Parts of a page: those that are offered as its sections, and those that may become one. */
import type { El } from '../tree.ts'

export interface Part {
  el: El
  heading: El | null
  title: string
  offered: boolean
  /** How many other offered parts this one lies in. */
  depth: number
  /** Of an empty target, the block that it stands for. */
  block: El | null
  /** What ends where the part does: the element itself, or what holds a heading or an anchor and its text. */
  holder: El
}

export interface Likely {
  el: El
  heading: El | null
  /** The block that a heading or an anchor stands for. */
  scope?: El
}
