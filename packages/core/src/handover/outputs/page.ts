/** The page as bytes: turns edits into splices of the source. */
import { byteOffsets, encodeText, splice, type El, type ElementAt, type ParsedPage, type Range, type Splice } from '../../page/index.ts'
import type { PageEdit } from '../edit.ts'
import { attributeEdits, setLabel } from '../splices/attributes.ts'
import { arrange, exchange, size, type EntriesEdit, type ExchangeEdit } from '../splices/entries.ts'
import { linkEdits } from '../splices/links.ts'
import { pieceEdits, type Piece } from '../splices/pieces.ts'
import { inOrder, type TextEdit } from '../splices/text-edit.ts'

export interface Handover {
  bytes: Uint8Array
  splices: Splice[]
}

/** Writes the edits into the page. @param original the bytes that `parsed` was made from */
export function writePage(original: Uint8Array, parsed: ParsedPage, edits: readonly PageEdit[]): Handover {
  const texts = inOrder(textEdits(parsed, edits))
  const marks = texts.flatMap((e) => [e.start, e.end, ...e.parts.flatMap((p) => ('from' in p ? [p.from, p.to] : []))])
  const sorted = [...new Set(marks)].sort((a, b) => a - b)
  const offsets = byteOffsets(original, parsed.decoded, sorted)
  const byteAt = new Map(sorted.map((position, i) => [position, offsets[i]!]))
  const splices = texts.map((e): Splice => {
    const offset = byteAt.get(e.start)!
    const chunks = e.parts.map((p) =>
      'from' in p ? original.subarray(byteAt.get(p.from)!, byteAt.get(p.to)!) : encodeText(p.text, parsed.decoded, p.place),
    )
    return { offset, removed: original.slice(offset, byteAt.get(e.end)!), inserted: join(chunks) }
  })
  return { bytes: splice(original, splices), splices }
}

function join(chunks: Uint8Array[]): Uint8Array {
  const out = new Uint8Array(chunks.reduce((n, c) => n + c.length, 0))
  let at = 0
  for (const c of chunks) {
    out.set(c, at)
    at += c.length
  }
  return out
}

function textEdits(parsed: ParsedPage, edits: readonly PageEdit[]): TextEdit[] {
  const { decoded, tree, byAt } = parsed
  const inner: TextEdit[] = []
  const linked: Range[] = []
  const lists: EntriesEdit[] = []
  const exchanges: ExchangeEdit[] = []
  const pieces: Piece[] = []
  const el = (at: ElementAt): El => {
    const found = byAt.get(at)
    if (!found) throw new RangeError(`the page has no element at position ${at}; it was read from another version of the source`)
    return found
  }
  for (const edit of edits) {
    if (edit.kind === 'attribute') inner.push(...attributeEdits(decoded.text, el(edit.at), edit.name, edit.value))
    else if (edit.kind === 'label') inner.push(...setLabel(decoded.text, el(edit.at), edit.text))
    else if (edit.kind === 'link') inner.push(...linkEdits(parsed, el(edit.at), edit, linked))
    else if (edit.kind === 'entries') lists.push(edit)
    else if (edit.kind === 'exchange') exchanges.push(edit)
    else pieces.push(edit)
  }
  let all = inner
  for (const edit of exchanges) all = exchange(edit, all, el)
  // Inner lists first: reordering the outer list copies them.
  const inwards = [...lists].sort((a, b) => size(el(a.list)) - size(el(b.list)))
  for (const edit of inwards) all = arrange(parsed, edit, all, el)
  return [...all, ...pieceEdits(parsed, tree.written, pieces, el)]
}
