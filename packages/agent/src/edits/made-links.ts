/** Made links in the live document: as the handover writes them, and removable without trace. */
import type { PageEdit } from '@waybell/core'
import { NO_WORDS, whyNoLink, wordsIn, type NoLink, type Walk } from '@waybell/core/contract'
import { elementAt, standIn } from '../page/stamps.ts'

type Link = Extract<PageEdit, { kind: 'link' }>

const walk: Walk<Element> = {
  tag: (el) => el.localName,
  parent: (el) => el.parentElement,
  children: (el) => el.children,
  attribute: (el, name) => el.getAttribute(name),
}

/** Why it can't be a link; null if it can. */
export const noLinkOf = (el: Element): NoLink | null => whyNoLink(el, walk)

/** Undo steps, last first. */
let undo: (() => void)[] = []
let key = '[]'

/** Everything that may move or change a linked element. */
function keyOf(edits: readonly PageEdit[]): string {
  const links = edits.filter((e) => e.kind === 'link')
  const at = new Set(links.map((l) => l.at))
  const touches = (e: PageEdit) =>
    e.kind === 'link' || e.kind === 'entries' || e.kind === 'exchange' || e.kind === 'label' || (e.kind === 'attribute' && at.has(e.at))
  const places = edits.map((e) => (e.kind === 'piece' ? [e.role, e.key, e.place] : touches(e) ? e : null))
  return links.length ? JSON.stringify(places) : '[]'
}

export function unlink(edits: readonly PageEdit[]): void {
  const next = keyOf(edits)
  if (next === key) return
  for (const back of undo.reverse()) back()
  undo = []
  key = next
}

export function link(edits: readonly Link[]): void {
  if (undo.length) return
  for (const edit of edits) {
    const el = elementAt(edit.at)
    const back = el && (edit.of === 'button' ? become(el, edit) : edit.of === 'words' ? around(el, edit) : hold(el, edit))
    if (back) undo.push(back)
  }
}

function make({ attributes }: Link): HTMLAnchorElement {
  const a = document.createElement('a')
  for (const [name, value] of Object.entries(attributes)) a.setAttribute(name, value)
  return a
}

function hold(el: Element, edit: Link): (() => void) | null {
  if (noLinkOf(el) !== null) return null
  const a = make(edit)
  el.replaceWith(a)
  a.append(el)
  return () => a.replaceWith(el)
}

function become(button: Element, edit: Link): (() => void) | null {
  if (button.localName !== 'button' || noLinkOf(button) !== null) return null
  const a = make(edit)
  for (const { name, value } of button.attributes) if (name !== 'type') a.setAttribute(name, value)
  a.append(...button.childNodes)
  button.replaceWith(a)
  standIn(edit.at, a)
  return () => {
    button.append(...a.childNodes)
    a.replaceWith(button)
    standIn(edit.at, button)
  }
}

/** Texts in an element that may be linked, in page order. */
export function* wordsOf(el: Element): Generator<Text> {
  if (el.closest([...NO_WORDS].join())) return
  const texts = document.createTreeWalker(el, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT, (node) =>
    node instanceof Element && NO_WORDS.has(node.localName) ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
  )
  while (texts.nextNode()) if (texts.currentNode instanceof Text) yield texts.currentNode
}

function around(el: Element, edit: Link): (() => void) | null {
  const sought = wordsIn(edit.words)
  for (const text of wordsOf(el)) {
    const found = sought.exec(text.data)
    if (!found) continue
    const before = text.data
    const a = make(edit)
    a.textContent = found[0]
    const [lead, tail] = [before.slice(0, found.index), before.slice(found.index + found[0].length)]
    const nodes = [...(lead ? [document.createTextNode(lead)] : []), a, ...(tail ? [document.createTextNode(tail)] : [])]
    text.replaceWith(...nodes)
    return () => {
      nodes[0]!.before(text)
      for (const node of nodes) node.remove()
    }
  }
  return null
}
