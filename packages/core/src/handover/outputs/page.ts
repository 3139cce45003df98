/** From edits to splices: where each edit falls in the source's text, what it writes, and the bytes of both. */
import {
  attributeRange,
  byteOffsets,
  encodeText,
  canBeLink,
  linkRange,
  nameEnd,
  splice,
  type El,
  type ElementAt,
  type ParsedPage,
  type Range,
  type Splice,
  type TextPlace,
  type WrittenPiece,
} from '../../page/index.ts'
import { escapeAttribute, escapeText } from 'entities'
import { arrangement, MADE, pieceTags, readMade, type PieceRole } from '../../contract/index.ts'
import type { NewEntry, PageEdit } from '../edit.ts'

/** New text, or a stretch of the source's own text, which keeps its bytes. */
type Part = { text: string; place: TextPlace } | { from: number; to: number }

interface TextEdit {
  start: number
  end: number
  /** Opens what closes further on: everything else that is put in there stands before it. */
  opens?: true
  parts: Part[]
}

export interface Handover {
  bytes: Uint8Array
  splices: Splice[]
}

/** Writes the edits into the page. `original` are the bytes that `parsed` was made from. */
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

const inOrder = (edits: TextEdit[]) =>
  edits
    .map((e, i) => ({ e, i }))
    .sort((a, b) => a.e.start - b.e.start || Number(!!a.e.opens) - Number(!!b.e.opens) || a.i - b.i)
    .map(({ e }) => e)

function textEdits(parsed: ParsedPage, edits: readonly PageEdit[]): TextEdit[] {
  const { decoded, tree, byAt } = parsed
  const inner: TextEdit[] = []
  const linked: Range[] = []
  const lists: EntriesEdit[] = []
  const exchanges: ExchangeEdit[] = []
  const pieces: Extract<PageEdit, { kind: 'piece' }>[] = []
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
  // A list within another first, so that it is there when the other is put into order.
  const inwards = [...lists].sort((a, b) => size(el(a.list)) - size(el(b.list)))
  for (const edit of inwards) all = arrange(parsed, edit, all, el)
  return [...all, ...pieceEdits(parsed, tree.written, pieces, el)]
}

const attributesText = (attributes: Record<string, string>): string =>
  Object.entries(attributes)
    .map(([name, value]) => (value === '' ? ` ${name}` : ` ${name}="${escapeAttribute(value)}"`))
    .join('')

const VOID = new Set(['img', 'hr'])

/**
 * Around an element, or words of it; a button has its tags changed. Nothing where that cannot be.
 * @param linked what links that were made before stand around, to which this one is added
 */
function linkEdits(
  parsed: ParsedPage,
  el: El,
  { of, words, attributes }: Extract<PageEdit, { kind: 'link' }>,
  linked: Range[],
): TextEdit[] {
  const range = canBeLink(parsed, el.at, of, words) ? linkRange(parsed, el.at, words, linked) : null
  if (!range) return []
  linked.push(range)
  const { text } = parsed.decoded
  const html = (text: string): Part[] => [{ text, place: 'html' }]
  if (of === 'button') {
    const name = nameEnd(text, el)
    // What kind of button it was says nothing of a link.
    return [
      { start: el.at + 1, end: name, parts: html(`a${attributesText(attributes)}`) },
      ...attributeEdits(text, el, 'type', null),
      { start: el.closeAt + 2, end: el.closeAt + 2 + (name - el.at - 1), parts: html('a') },
    ]
  }
  const isOpen = of === 'element' && el.closeAt < 0 && !VOID.has(el.tag)
  return [
    { start: range.start, end: range.start, parts: html(`<a${attributesText(attributes)}>`), opens: true },
    // One whose end is left to the parser is ended first.
    { start: range.end, end: range.end, parts: html(isOpen ? `</${el.tag}></a>` : '</a>') },
  ]
}

/** One that is taken away goes with the white space before it. */
function attributeEdits(text: string, el: El, name: string, value: string | null): TextEdit[] {
  if (value !== null) return [setAttribute(text, el, name, value)]
  const found = attributeRange(text, el, name)
  if (!found) return []
  const start = found.start - /\s*$/.exec(text.slice(0, found.start))![0].length
  return [{ start, end: found.end, parts: [] }]
}

function setAttribute(text: string, el: El, name: string, value: string): TextEdit {
  const found = attributeRange(text, el, name)
  if (!found) {
    const at = nameEnd(text, el)
    return { start: at, end: at, parts: [{ text: value === '' ? ` ${name}` : ` ${name}="${escapeAttribute(value)}"`, place: 'html' }] }
  }
  const { start, end, quote } = found
  const escaped = quote === "'" ? escapeText(value).replace(/'/g, '&#39;') : escapeAttribute(value)
  const written = value === '' ? found.name : `${found.name}=${quote}${escaped}${quote}`
  return { start, end, parts: [{ text: written, place: 'html' }] }
}

/** Changes the run of text but for the white space around it. */
function setLabel(source: string, el: El, label: string): TextEdit[] {
  const stack = [el]
  while (stack.length) {
    const e = stack.shift()!
    const run = e.texts.find((t) => t.value.trim() !== '' && t.at >= 0)
    if (run) {
      const raw = source.slice(run.at, run.end)
      const start = run.at + raw.length - raw.trimStart().length
      return [{ start, end: start + raw.trim().length, parts: [{ text: escapeText(label), place: 'html' }] }]
    }
    stack.unshift(...e.children.filter((c) => c.tag !== 'svg'))
  }
  return []
}

type EntriesEdit = Extract<PageEdit, { kind: 'entries' }>
type ExchangeEdit = Extract<PageEdit, { kind: 'exchange' }>

const size = (el: El) => el.end - el.at

/** The source's text from `start` to `end`, with what was changed in it. */
function render(start: number, end: number, changes: readonly TextEdit[]): Part[] {
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

/** Elements change places, with what was edited in them. */
function exchange(edit: ExchangeEdit, edits: TextEdit[], el: (at: ElementAt) => El): TextEdit[] {
  const moved = edit.from.map((at, i): TextEdit => {
    const [place, next] = [el(at), el(edit.to[i]!)]
    return { start: place.at, end: place.end, parts: render(next.at, next.end, edits) }
  })
  const isMoved = (e: TextEdit) => moved.some((m) => e.start >= m.start && e.end <= m.end)
  return [...edits.filter((e) => !isMoved(e)), ...moved]
}

/** Puts a list's entries into another order, with what was edited inside them. */
function arrange(parsed: ParsedPage, edit: EntriesEdit, edits: TextEdit[], el: (at: ElementAt) => El): TextEdit[] {
  const text = parsed.decoded.text
  const ranges = edit.from.map((at) => ({ start: at, end: el(at).end }))
  const first = ranges[0]!.start
  const last = ranges[ranges.length - 1]!.end
  const within = edits.filter((e) => e.start >= first && e.end <= last)
  const copy = (entry: NewEntry): Part[] => {
    const from = el(entry.like)
    const link = el(entry.link)
    const changes = [
      ...Object.entries(entry.attributes).flatMap(([name, value]) => attributeEdits(text, link, name, value)),
      ...setLabel(text, link, entry.label),
    ]
    for (const e of [from, ...inside(from)]) {
      const id = attributeRange(text, e, 'id')
      if (id) changes.push({ start: id.start, end: id.end, parts: [] })
    }
    return render(from.at, from.end, changes)
  }
  const betweens = ranges.slice(1).map((r, i) => ({ from: ranges[i]!.end, to: r.start }))
  const links = parsed.tree.all.filter((e) => e.tag === 'a' && e.at >= first && e.at < last)
  const holds = betweens.map(({ from, to }) => links.some((e) => e.at >= from && e.at < to))
  const parts = arrangement<ElementAt | NewEntry>(edit.from, edit.to, holds).flatMap((token): Part[] => {
    if ('slot' in token) {
      const entry = edit.to[token.slot]!
      return typeof entry === 'number' ? render(entry, el(entry).end, within) : copy(entry)
    }
    const { from, to } = betweens[token.between]!
    return token.lead ? [{ from, to: from + /^\s*/.exec(text.slice(from, to))![0].length }] : render(from, to, within)
  })
  return [...edits.filter((e) => !within.includes(e)), { start: first, end: last, parts }]
}

function inside(el: El): El[] {
  return el.children.flatMap((c) => [c, ...inside(c)])
}

type Piece = Extract<PageEdit, { kind: 'piece' }>

const attributeOf = ({ node }: WrittenPiece, name: string) => node.attrs.find((a) => a.name === name)?.value

/** Where the same was written before, and is to stand still. */
function isSame(piece: Piece, old: WrittenPiece): boolean {
  if (piece.role !== old.role) return false
  if (piece.role === 'anchor') return piece.key === attributeOf(old, 'id')
  if (piece.role !== 'menu' && piece.role !== 'step') return true
  const [was, now] = [readMade(attributeOf(old, MADE) ?? ''), readMade(piece.attributes![MADE]!)!]
  // The bar of an earlier handover said nothing of itself.
  if (!was) return now.form === 'bar'
  const standsAlike = was.form === now.form && was.words.place === now.words.place && was.words.of === now.words.of
  return was.number === now.number && was.part === now.part && standsAlike
}

/** A piece that an earlier handover wrote is written over in its place; those that are no longer wanted go. */
function pieceEdits(parsed: ParsedPage, written: WrittenPiece[], pieces: Piece[], el: (at: ElementAt) => El): TextEdit[] {
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

/** Before the body's end tag, or the end of the text where that is left out. */
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

/** The end of the head: before its end tag, or where the body begins to be implied. */
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

/** Where the body's start tag stands; where it is implied, the first thing that opens the body. */
function bodyOpens(tree: ParsedPage['tree']): number | null {
  const { body, head, html } = tree
  if (body && body.at >= 0) return body.at
  // By source order: what a table throws out stands before it in the tree, and behind its start tag in the source.
  const starts = [...(body?.texts ?? []).filter((t) => t.value.trim() !== ''), ...(body?.children ?? [])]
    .map((n) => n.at)
    .filter((at) => at >= 0)
  const first = starts.reduce((least, at) => Math.min(least, at), Infinity)
  if (Number.isFinite(first)) return first
  return Math.max(head?.tagEnd ?? 0, html.tagEnd, tree.doctypeEnd, 0)
}
