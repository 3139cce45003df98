/** What a kind of item has to say. */
import type { Shape, Shapes } from '../../shape/index.ts'

export interface ItemKind<T extends { kind: string }> {
  shape: (s: Shapes) => { [K in Exclude<keyof T, 'kind'>]: Shape }
  /** What is written as its `href`; null where a link stays as the page has it. `idOf` gives the ID of a section. */
  href: (target: T, idOf: (section: string) => string) => string | null
  /** Key of the section that it leads to; null where it leads to none. */
  section: (target: T) => string | null
}
