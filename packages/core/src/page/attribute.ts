/** Attributes in a start tag. */
import type { El } from './tree.ts'

/** Right after the tag's name. */
export function nameEnd(text: string, el: El): number {
  let i = el.at + 1
  while (i < text.length && !/[\t\n\f\r />]/.test(text[i]!)) i++
  return i
}

/** Range of an attribute in its start tag; null for none. The first of duplicates counts. */
export function attributeRange(text: string, el: El, name: string): { start: number; end: number; name: string; quote: string } | null {
  // As the tokenizer reads it: name, optional `=`, quoted or bare value.
  const pattern = /[\t\n\f\r /]*([^\t\n\f\r />][^\t\n\f\r /=>]*)(?:[\t\n\f\r ]*=[\t\n\f\r ]*(?:"([^"]*)"|'([^']*)'|([^\t\n\f\r >]+)))?/y
  pattern.lastIndex = nameEnd(text, el)
  for (let m = pattern.exec(text); m && m.index < el.tagEnd - 1; m = pattern.exec(text)) {
    if (m[1]!.toLowerCase() !== name) continue
    const start = m.index + m[0].indexOf(m[1]!)
    return { start, end: m.index + m[0].length, name: m[1]!, quote: m[3] !== undefined ? "'" : '"' }
  }
  return null
}
