/** Pieces: the elements that a handover adds to the page. */
import { MADE, pieceTags, readMade, type PieceRole } from '../../contract/index.ts'
import type { El, ElementAt, ParsedPage, TextPlace, WrittenPiece } from '../../page/index.ts'
import type { PageEdit } from '../edit.ts'
import { attributesText } from './attributes.ts'
import type { Part, TextEdit } from './text-edit.ts'

export type Piece = Extract<PageEdit, { kind: 'piece' }>

const attributeOf = ({ node }: WrittenPiece, name: string) => node.attrs.find((a) => a.name === name)?.value

/** True when an earlier handover wrote the same piece, so that it can stay in its place. */
function isSame(piece: Piece, old: WrittenPiece): boolean {
  if (piece.role !== old.role) return false
  if (piece.role === 'anchor') return piece.key === attributeOf(old, 'id')
  if (piece.role !== 'menu' && piece.role !== 'step') return true
  const [was, now] = [readMade(attributeOf(old, MADE) ?? ''), readMade(piece.attributes![MADE]!)!]
  // Early handovers wrote only a bar, without a form.
  if (!was) return now.form === 'bar'
  const standsAlike = was.form === now.form && was.words.place === now.words.place && was.words.of === now.words.of
  return was.number === now.number && was.part === now.part && standsAlike
}

/** Replaces pieces of an earlier handover in their places, removes those no longer wanted, and adds new ones. */
export function pieceEdits(parsed: ParsedPage, written: WrittenPiece[], pieces: Piece[], el: (at: ElementAt) => El): TextEdit[] {
  const out: TextEdit[] = []
  const placed = new Set<Piece>()
  for (const old of written) {
    const piece = pieces.find((p) => !placed.has(p) && isSame(p, old))
    if (piece) placed.add(piece)
    out.push({ start: old.at, end: old.end, parts: piece ? pieceText(piece) : [] })
  }
  let separate = false
  for (const piece of pieces) {
    if (placed.has(piece)) continue
    const at = placeOf(piece.place, parsed, el)
    const line: Part[] = piece.place === 'head' && separate ? [{ text: '\n', place: 'html' }] : []
    separate ||= piece.place === 'head'
    out.push({ start: at, end: at, parts: [...line, ...pieceText(piece)] })
  }
  return out
}

function placeOf(place: Piece['place'], parsed: ParsedPage, el: (at: ElementAt) => El): number {
  if (place === 'head') return headEnd(parsed)
  if (place === 'body-start') return bodyStart(parsed)
  if (place === 'body-end') return bodyEnd(parsed)
  if ('after' in place) return el(place.after).end
  if ('before' in place) return place.before
  const into = el(place.into)
  if (!place.last) return into.tagEnd
  return into.closeAt >= 0 ? into.closeAt : into.end
}

/** Before the body's end tag, or the text's end without one. */
function bodyEnd({ tree, decoded }: ParsedPage): number {
  const { body, html } = tree
  if (body && body.closeAt >= 0) return body.closeAt
  return html.closeAt >= 0 ? html.closeAt : decoded.text.length
}

const textPlaces: Record<PieceRole, TextPlace> = {
  style: 'css',
  settings: 'js',
  script: 'js',
  menu: 'html',
  step: 'html',
  skip: 'html',
  anchor: 'html',
}

function pieceText({ role, text, attributes: own }: Piece): Part[] {
  const { tag, attributes, isVoid }: { tag: string; attributes: Record<string, string>; isVoid?: true } = pieceTags[role]
  const opening: Part = { text: `<${tag}${attributesText({ ...attributes, ...own })}>`, place: 'html' }
  return isVoid ? [opening] : [opening, { text, place: textPlaces[role] }, { text: `</${tag}>`, place: 'html' }]
}

/** The head's end: before its end tag, or where the body starts without one. */
function headEnd({ tree }: ParsedPage): number {
  const { head } = tree
  if (head && head.closeAt >= 0) return head.closeAt
  return bodyOpens(tree) ?? 0
}

function bodyStart({ tree }: ParsedPage): number {
  const { body } = tree
  if (body && body.at >= 0) return body.tagEnd
  return bodyOpens(tree) ?? 0
}

/** The body's start tag, or the first thing that implies it. */
function bodyOpens(tree: ParsedPage['tree']): number | null {
  const { body, head, html } = tree
  if (body && body.at >= 0) return body.at
  // By source order: the parser moves misplaced table content before the table.
  const starts = [...(body?.texts ?? []).filter((t) => t.value.trim() !== ''), ...(body?.children ?? [])]
    .map((n) => n.at)
    .filter((at) => at >= 0)
  const first = starts.reduce((least, at) => Math.min(least, at), Infinity)
  if (Number.isFinite(first)) return first
  return Math.max(head?.tagEnd ?? 0, html.tagEnd, tree.doctypeEnd, 0)
}
