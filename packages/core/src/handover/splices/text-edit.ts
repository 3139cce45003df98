/** Changes to the source's text, and their order. */
import type { TextPlace } from '../../page/index.ts'

/** New text, or a range of the source's text, which keeps its bytes. */
export type Part = { text: string; place: TextPlace } | { from: number; to: number }

export interface TextEdit {
  start: number
  end: number
  /** An opening tag: comes after everything else inserted at the same place. */
  opens?: true
  parts: Part[]
}

export const inOrder = (edits: TextEdit[]) =>
  edits
    .map((e, i) => ({ e, i }))
    .sort((a, b) => a.e.start - b.e.start || Number(!!a.e.opens) - Number(!!b.e.opens) || a.i - b.i)
    .map(({ e }) => e)

/** The source's text from `start` to `end` with the changes inside. */
export function render(start: number, end: number, changes: readonly TextEdit[]): Part[] {
  const parts: Part[] = []
  let from = start
  for (const c of inOrder(changes.filter((e) => e.start >= start && e.end <= end))) {
    if (c.start > from) parts.push({ from, to: c.start })
    parts.push(...c.parts)
    from = c.end
  }
  if (end > from) parts.push({ from, to: end })
  return parts
}
