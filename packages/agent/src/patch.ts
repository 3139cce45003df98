/**
 * The handover's edits on the live document. Each call is given all edits that are to stand; what stood before and is
 * not among them is taken back, so that the document always equals a fresh load of the handed-over page.
 */
import type { NewSlot, PageEdit, PieceRole } from '@waybell/core'
import { pieceTags } from '@waybell/core/pieces'
import { elementAt } from './stamps.ts'

type Of<K extends PageEdit['kind']> = Extract<PageEdit, { kind: K }>

const attributes = new Map<string, { el: Element; name: string; before: string | null; value: string }>()
const labels = new Map<number, { node: Text; before: string; text: string }>()
const lists = new Map<number, { nodes: Node[]; key: string }>()
/** By role and ID. */
const pieces = new Map<string, { el: Element; place: string; text: string; glue: Node | null }>()

export function patch(edits: readonly PageEdit[]): void {
  const of = <K extends PageEdit['kind']>(kind: K) => edits.filter((e): e is Of<K> => e.kind === kind)
  patchLists(of('slots'))
  patchAttributes(of('attribute'))
  patchLabels(of('label'))
  // Copies in lists are made of what their originals came to.
  fillCopies(of('slots'))
  if (patchPieces(of('piece'))) document.dispatchEvent(new Event('waybell'))
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
    if (el.getAttribute(name) !== value) el.setAttribute(name, value)
    attributes.set(key, { ...set, value })
  }
}

/** The first run of visible text, as the handover counts it. */
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

const copies: { slot: NewSlot; el: Element }[] = []

function patchLists(edits: Of<'slots'>[]): void {
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
}

function restore(list: number, nodes: Node[]): void {
  const el = elementAt(list)
  if (!el) return
  for (let i = copies.length - 1; i >= 0; i--) if (el.contains(copies[i]!.el)) copies.splice(i, 1)
  el.replaceChildren(...nodes)
}

/** Between entries stands what stood there: white space, dividers. It keeps its place while entries change theirs. */
function arrange(list: Element, edit: Of<'slots'>): void {
  const nodes = [...list.childNodes]
  const entries = edit.from.map((at) => elementAt(at)!)
  const index = entries.map((e) => nodes.indexOf(e))
  if (index.some((i) => i < 0)) return
  const glue = index.slice(1).map((to, i) => nodes.slice(index[i]! + 1, to))
  const used = new Set<Node>()
  const once = (node: Node) => {
    if (used.has(node)) return node.cloneNode(true)
    used.add(node)
    return node
  }
  const middle = edit.to.flatMap((slot, i) => {
    const between = i > 0 ? (glue[Math.min(i, glue.length) - 1] ?? []).map(once) : []
    return [...between, typeof slot === 'number' ? elementAt(slot)! : makeCopy(slot)]
  })
  list.replaceChildren(...nodes.slice(0, index[0]), ...middle, ...nodes.slice(index[index.length - 1]! + 1))
}

function makeCopy(slot: NewSlot): Element {
  const el = elementAt(slot.like)!.cloneNode(true) as Element
  copies.push({ slot, el })
  return el
}

function fillCopies(edits: Of<'slots'>[]): void {
  if (!edits.length) copies.length = 0
  for (const { slot, el } of copies) {
    const original = elementAt(slot.like)!
    for (const e of [el, ...el.querySelectorAll('[id]')]) e.removeAttribute('id')
    const link = slot.link === slot.like ? el : el.querySelectorAll('*')[[...original.querySelectorAll('*')].indexOf(elementAt(slot.link)!)]
    if (!link) continue
    link.setAttribute('href', slot.href)
    link.removeAttribute('aria-current')
    const node = labelNode(link)
    if (node) node.data = withLabel(node.data, slot.label)
  }
}

/** @returns true where the script has to read its settings, links or sections anew */
function patchPieces(edits: Of<'piece'>[]): boolean {
  const wanted = new Map(edits.map((e) => [`${e.role} ${e.id ?? ''}`, e]))
  // Anchors stand in page order: where one comes or goes, all are put there anew.
  const isAnchor = (key: string) => key.startsWith('anchor ')
  const anchorsOf = (keys: Iterable<string>) => [...keys].filter(isAnchor).join('\n')
  const reorder = anchorsOf(pieces.keys()) !== anchorsOf(wanted.keys())
  for (const [key, piece] of pieces) {
    const next = reorder && isAnchor(key) ? undefined : wanted.get(key)
    if (next && JSON.stringify(next.place) === piece.place) continue
    piece.glue?.parentNode?.removeChild(piece.glue)
    piece.el.remove()
    pieces.delete(key)
  }
  let first = true
  for (const [key, edit] of wanted) {
    const { role } = edit
    const set = pieces.get(key)
    if (set) {
      if (set.text !== edit.text && role !== 'script') fill(set.el, role, edit.text)
      set.text = edit.text
    } else {
      const el = document.createElement(pieceTags[role].tag)
      for (const [name, value] of Object.entries(pieceTags[role].attributes)) el.setAttribute(name, value)
      if (edit.id !== undefined) el.id = edit.id
      fill(el, role, edit.text)
      const glue = edit.place === 'head' && !first ? document.createTextNode('\n') : null
      if (edit.place === 'head') {
        if (glue) document.head.append(glue)
        document.head.append(el)
      } else if (edit.place === 'body-start') document.body.prepend(el)
      else elementAt(edit.place.after)?.after(el)
      pieces.set(key, { el, place: JSON.stringify(edit.place), text: edit.text, glue })
    }
    if (edit.place === 'head') first = false
  }
  return wanted.size > 0
}

function fill(el: Element, role: PieceRole, text: string): void {
  if (role === 'menu') el.innerHTML = text
  else el.textContent = text
}
