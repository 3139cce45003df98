/**
 * Applies the handover's edits to the live document. Each call gets all edits; earlier ones that are missing are undone, so the document
 * always equals a fresh load of the handed-over page.
 */
import type { NewEntry, PageEdit } from '@waybell/core'
import { arrangement, pieceTags, type PieceRole } from '@waybell/core/contract'
import { unlink, link } from './made-links.ts'
import { elementAt } from '../page/stamps.ts'

type Of<K extends PageEdit['kind']> = Extract<PageEdit, { kind: K }>

const attributes = new Map<string, { el: Element; name: string; before: string | null; value: string | null }>()
const labels = new Map<number, { node: Text; before: string; text: string }>()
const lists = new Map<number, { nodes: Node[]; key: string }>()
/** By role and ID. */
const pieces = new Map<string, { el: Element; place: string; text: string; glue: Node | null }>()

/** True for elements that edits added. */
export const isPiece = (el: Element): boolean => [...pieces.values()].some((piece) => piece.el === el)

export function patch(edits: readonly PageEdit[]): void {
  const of = <K extends PageEdit['kind']>(kind: K) => edits.filter((e): e is Of<K> => e.kind === kind)
  // Made links are added last, and removed first if anything may move.
  unlink(edits)
  patchLists(of('entries'), of('exchange'))
  patchAttributes(of('attribute'))
  patchLabels(of('label'))
  // Copied entries are made from edited originals.
  fillCopies(of('entries'))
  const isTold = patchPieces(of('piece'))
  link(of('link'))
  if (isTold) document.dispatchEvent(new Event('waybell'))
}

function patchAttributes(edits: Of<'attribute'>[]): void {
  const wanted = new Map(edits.map((e) => [`${e.at} ${e.name}`, e]))
  for (const [key, set] of attributes) {
    if (wanted.has(key)) continue
    if (set.before === null) set.el.removeAttribute(set.name)
    else set.el.setAttribute(set.name, set.before)
    attributes.delete(key)
  }
  for (const [key, { at, name, value }] of wanted) {
    const el = elementAt(at)
    if (!el) continue
    const set = attributes.get(key) ?? { el, name, before: el.getAttribute(name), value: '' }
    if (value === null) el.removeAttribute(name)
    else if (el.getAttribute(name) !== value) el.setAttribute(name, value)
    attributes.set(key, { ...set, value })
  }
}

/** The first visible text, as in the handover. */
function labelNode(el: Element): Text | null {
  const own = [...el.childNodes].find((n): n is Text => n instanceof Text && n.data.trim() !== '')
  if (own) return own
  for (const child of el.children) {
    const found = child.tagName === 'svg' ? null : labelNode(child)
    if (found) return found
  }
  return null
}

const withLabel = (before: string, label: string): string => {
  const lead = before.length - before.trimStart().length
  return before.slice(0, lead) + label + before.slice(lead + before.trim().length)
}

function patchLabels(edits: Of<'label'>[]): void {
  const wanted = new Map(edits.map((e) => [e.at, e.text]))
  for (const [at, set] of labels) {
    if (wanted.has(at)) continue
    set.node.data = set.before
    labels.delete(at)
  }
  for (const [at, text] of wanted) {
    const el = elementAt(at)
    const node = labels.get(at)?.node ?? (el && labelNode(el))
    if (!node) continue
    const before = labels.get(at)?.before ?? node.data
    const data = withLabel(before, text)
    if (node.data !== data) node.data = data
    labels.set(at, { node, before, text })
  }
}

const copies: { entry: NewEntry; el: Element; link: Element | undefined }[] = []
/** Swapped elements: what was there, and what is there now. */
let exchanged: { from: number[]; to: number[] } | null = null

function patchLists(edits: Of<'entries'>[], exchange: Of<'exchange'>[]): void {
  // Lists are reordered with links in their original places.
  if (exchanged) putThere(exchanged.to, exchanged.from)
  const wanted = new Map(edits.map((e) => [e.list, e]))
  for (const [list, set] of lists) {
    const next = wanted.get(list)
    if (next && JSON.stringify(next) === set.key) {
      wanted.delete(list)
      continue
    }
    restore(list, set.nodes)
    lists.delete(list)
  }
  for (const edit of wanted.values()) {
    const list = elementAt(edit.list)
    if (!list) continue
    lists.set(edit.list, { nodes: [...list.childNodes], key: JSON.stringify(edit) })
    arrange(list, edit)
  }
  const from = exchange.flatMap((e) => e.from)
  const to = exchange.flatMap((e) => e.to)
  if (from.length) putThere(from, to)
  exchanged = from.length ? { from, to } : null
}

/** Puts the i-th of `to` in the place of the i-th of `from`. */
function putThere(from: readonly number[], to: readonly number[]): void {
  const places = from.map((at) => {
    const place = document.createComment('')
    elementAt(at)?.replaceWith(place)
    return place
  })
  places.forEach((place, i) => {
    const el = elementAt(to[i]!)
    if (el) place.replaceWith(el)
    else place.remove()
  })
}

function restore(list: number, nodes: Node[]): void {
  const el = elementAt(list)
  if (!el) return
  for (let i = copies.length - 1; i >= 0; i--) if (el.contains(copies[i]!.el)) copies.splice(i, 1)
  el.replaceChildren(...nodes)
}

/** Text between entries stays: white space, dividers, other links. */
function arrange(list: Element, edit: Of<'entries'>): void {
  const nodes = [...list.childNodes]
  const index = edit.from.map((at) => nodes.indexOf(elementAt(at)!))
  if (index.some((i) => i < 0)) return
  const betweens = index.slice(1).map((to, i) => nodes.slice(index[i]! + 1, to))
  const holds = betweens.map((all) => all.some((n) => n instanceof Element && (n.matches('a') || n.querySelector('a'))))
  const used = new Set<Node>()
  const once = (node: Node) => {
    if (used.has(node)) return node.cloneNode(true)
    used.add(node)
    return node
  }
  const middle = arrangement<number | NewEntry>(edit.from, edit.to, holds).flatMap((token) => {
    if ('slot' in token) {
      const entry = edit.to[token.slot]!
      return typeof entry === 'number' ? elementAt(entry)! : makeCopy(entry)
    }
    const between = betweens[token.between]!
    if (!token.lead) return between.map(once)
    const first = between[0]
    return first instanceof Text ? document.createTextNode(/^\s*/.exec(first.data)![0]) : []
  })
  list.replaceChildren(...nodes.slice(0, index[0]), ...middle, ...nodes.slice(index[index.length - 1]! + 1))
}

function makeCopy(entry: NewEntry): Element {
  const original = elementAt(entry.like)!
  const el = original.cloneNode(true) as Element
  const link =
    entry.link === entry.like ? el : el.querySelectorAll('*')[[...original.querySelectorAll('*')].indexOf(elementAt(entry.link)!)]
  copies.push({ entry, el, link })
  return el
}

function fillCopies(edits: Of<'entries'>[]): void {
  if (!edits.length) copies.length = 0
  for (const { entry, el, link } of copies) {
    for (const e of [el, ...el.querySelectorAll('[id]')]) e.removeAttribute('id')
    if (!link) continue
    for (const [name, value] of Object.entries(entry.attributes))
      if (value === null) link.removeAttribute(name)
      else link.setAttribute(name, value)
    link.removeAttribute('aria-current')
    const node = labelNode(link)
    if (node) node.data = withLabel(node.data, entry.label)
  }
}

/** Key of the script's piece. */
const SCRIPT = 'script '
const endScript = (): void => (document as Document & { wayBellEnd?: () => void }).wayBellEnd?.()

/** @returns true when the script must read its settings, links or sections again */
function patchPieces(edits: Of<'piece'>[]): boolean {
  const wanted = new Map(edits.map((e) => [`${e.role} ${e.key ?? ''}`, e]))
  // Anchors are in page order, so all are placed again when one changes.
  const isAnchor = (key: string) => key.startsWith('anchor ')
  const anchorsOf = (keys: Iterable<string>) => [...keys].filter(isAnchor).join('\n')
  const reorder = anchorsOf(pieces.keys()) !== anchorsOf(wanted.keys())
  for (const [key, piece] of pieces) {
    const next = reorder && isAnchor(key) ? undefined : wanted.get(key)
    if (next && JSON.stringify(next.place) === piece.place) continue
    piece.glue?.parentNode?.removeChild(piece.glue)
    piece.el.remove()
    if (key === SCRIPT) endScript()
    pieces.delete(key)
  }
  let first = true
  /** The last piece at the body's start so far: they keep their order. */
  let start: Element | null = null
  for (const [key, edit] of wanted) {
    const { role } = edit
    const set = pieces.get(key)
    if (set) {
      // A script runs once: another one needs another element.
      if (role === 'script' && set.text !== edit.text) {
        const old = set.el
        set.el = make(edit)
        old.replaceWith(set.el)
      } else if (set.text !== edit.text) fill(set.el, role, edit.text)
      set.text = edit.text
      setAttributes(set.el, edit)
    } else {
      const el = make(edit)
      const glue = edit.place === 'head' && !first ? document.createTextNode('\n') : null
      if (edit.place === 'head') {
        if (glue) document.head.append(glue)
        document.head.append(el)
      } else if (edit.place === 'body-start' && start) start.after(el)
      else put(el, edit.place)
      pieces.set(key, { el, place: JSON.stringify(edit.place), text: edit.text, glue })
    }
    if (edit.place === 'head') first = false
    if (edit.place === 'body-start') start = pieces.get(key)!.el
  }
  return wanted.size > 0
}

function make(edit: Of<'piece'>): Element {
  const { tag, attributes } = pieceTags[edit.role]
  const el = document.createElement(tag)
  for (const [name, value] of Object.entries(attributes)) el.setAttribute(name, value)
  setAttributes(el, edit)
  fill(el, edit.role, edit.text)
  return el
}

const setAttributes = (el: Element, { attributes = {} }: Of<'piece'>) => {
  for (const [name, value] of Object.entries(attributes)) if (el.getAttribute(name) !== value) el.setAttribute(name, value)
}

function put(el: Element, place: Exclude<Of<'piece'>['place'], 'head'>): void {
  if (place === 'body-start') document.body.prepend(el)
  else if (place === 'body-end') document.body.append(el)
  else if ('after' in place) elementAt(place.after)?.after(el)
  else if ('before' in place) elementAt(place.before)?.before(el)
  else if (place.last) elementAt(place.into)?.append(el)
  else elementAt(place.into)?.prepend(el)
}

function fill(el: Element, role: PieceRole, text: string): void {
  if (role === 'menu' || role === 'step' || role === 'skip') el.innerHTML = text
  else el.textContent = text
}
