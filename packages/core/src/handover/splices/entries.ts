/** The order of menu entries. */
import { arrangement } from '../../contract/index.ts'
import { attributeRange, type El, type ElementAt, type ParsedPage } from '../../page/index.ts'
import type { NewEntry, PageEdit } from '../edit.ts'
import { attributeEdits, setLabel } from './attributes.ts'
import { render, type Part, type TextEdit } from './text-edit.ts'

export type EntriesEdit = Extract<PageEdit, { kind: 'entries' }>
export type ExchangeEdit = Extract<PageEdit, { kind: 'exchange' }>

export const size = (el: El) => el.end - el.at

/** Swaps elements, together with the edits inside them. */
export function exchange(edit: ExchangeEdit, edits: TextEdit[], el: (at: ElementAt) => El): TextEdit[] {
  const moved = edit.from.map((at, i): TextEdit => {
    const [place, next] = [el(at), el(edit.to[i]!)]
    return { start: place.at, end: place.end, parts: render(next.at, next.end, edits) }
  })
  const isMoved = (e: TextEdit) => moved.some((m) => e.start >= m.start && e.end <= m.end)
  return [...edits.filter((e) => !isMoved(e)), ...moved]
}

/** Reorders a list's entries, together with the edits inside them. */
export function arrange(parsed: ParsedPage, edit: EntriesEdit, edits: TextEdit[], el: (at: ElementAt) => El): TextEdit[] {
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
