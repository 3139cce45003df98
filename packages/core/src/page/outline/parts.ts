/** Parts of a page: offered as sections, or possible ones. */
import type { El } from '../tree.ts'

export interface Part {
  el: El
  heading: El | null
  title: string
  offered: boolean
  /** Number of offered parts around it. */
  depth: number
  /** For an empty target: its block. */
  block: El | null
  /** The element that ends where the part does: itself, or the one around a heading or anchor and its text. */
  holder: El
}

export interface Likely {
  el: El
  heading: El | null
  /** The block that a heading or anchor stands for. */
  scope?: El
}
