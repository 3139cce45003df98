/**
 * The page as a tree with source positions. parse5 parses it; this converts its tree in one walk without recursion, so that deep markup
 * can't exhaust the stack.
 */
import { defaultTreeAdapter, html, parse, type DefaultTreeAdapterMap, type DefaultTreeAdapterTypes as T } from 'parse5'
import { PIECE, roleOf, type PieceRole } from '../contract/index.ts'
import { MAX_DEPTH, PageError } from './errors.ts'

/** Position of an element's start tag in the decoded source; identifies it for one version of the source. */
export type ElementAt = number

export interface El {
  /** Position of the start tag's `<` in the decoded text; -1 for an implied tag. */
  at: number
  /** After the start tag's `>`; -1 for an implied tag. */
  tagEnd: number
  /** Start of the end tag; -1 without one. */
  closeAt: number
  /** Just behind the element. */
  end: number
  tag: string
  attrs: ReadonlyMap<string, string>
  parent: El | null
  children: El[]
  depth: number
  /** 1 to 6 for a heading, else 0. */
  level: number
  /** In HTML's namespace, unlike SVG and MathML. */
  isHtml: boolean
  /** Own text nodes in order, each with the number of child elements before it. */
  texts: { value: string; before: number; at: number; end: number }[]
  /** Document order, lower than every descendant's. */
  order: number
  /** Last descendant's order. */
  lastOrder: number
}

/** A piece of an earlier handover; not part of the reading. */
export interface WrittenPiece {
  role: PieceRole
  at: number
  end: number
  /** Text of a style or script. */
  text: string
  node: T.Element
}

export interface Tree {
  written: WrittenPiece[]
  html: El
  head: El | null
  body: El | null
  /** Every element outside `template`, in document order. */
  all: El[]
  quirks: boolean
  /** End of the doctype; 0 without one. */
  doctypeEnd: number
}

interface Counted {
  depth: number
}

/** Parses with source positions. @throws PageError `page-too-deep` while parsing, before depth costs time */
export function parseTree(text: string): Tree {
  const counter: Counted = { depth: 0 }
  const document = parse(text, {
    sourceCodeLocationInfo: true,
    treeAdapter: {
      ...defaultTreeAdapter,
      onItemPush: () => {
        if (++counter.depth > MAX_DEPTH)
          throw new PageError(
            'page-too-deep',
            `the markup is nested deeper than ${MAX_DEPTH} levels, the deepest that is read; close the elements that were left open`,
          )
      },
      onItemPop: () => void counter.depth--,
    },
  })
  return grow(document)
}

function writtenRole(node: T.Element, text: string): PieceRole | null {
  if (!node.attrs.some((a) => a.name === PIECE)) return null
  const children = node.childNodes.flatMap((n) => ('tagName' in n ? n.tagName : []))
  return roleOf({ tag: node.tagName, attributes: new Map(node.attrs.map((a) => [a.name, a.value])), text, children })
}

function grow(document: DefaultTreeAdapterMap['document']): Tree {
  const all: El[] = []
  const written: WrittenPiece[] = []
  let root: El | undefined
  let doctypeEnd = 0
  for (const node of document.childNodes) {
    if (node.nodeName === '#documentType') doctypeEnd = node.sourceCodeLocation?.endOffset ?? 0
    if ('tagName' in node) root = makeEl(node, null, all)
  }
  const stack: { el: El; nodes: T.ChildNode[]; next: number }[] = []
  const open = (el: El, node: T.Element) => stack.push({ el, nodes: node.childNodes, next: 0 })
  open(
    root!,
    document.childNodes.find((n): n is T.Element => 'tagName' in n)!,
  )
  while (stack.length) {
    const top = stack[stack.length - 1]!
    const node = top.nodes[top.next++]
    if (!node) {
      top.el.lastOrder = all.length - 1
      stack.pop()
    } else if ('tagName' in node) {
      const first = node.childNodes[0]
      const text = first?.nodeName === '#text' ? (first as T.TextNode).value : ''
      const role = writtenRole(node, text)
      const place = node.sourceCodeLocation
      if (role && place) {
        written.push({ role, at: place.startOffset, end: place.endOffset, text, node })
        continue
      }
      const el = makeEl(node, top.el, all)
      top.el.children.push(el)
      open(el, node)
    } else if (node.nodeName === '#text') {
      const place = node.sourceCodeLocation
      top.el.texts.push({
        value: (node as T.TextNode).value,
        before: top.el.children.length,
        at: place?.startOffset ?? -1,
        end: place?.endOffset ?? -1,
      })
    }
  }
  const html_ = root!
  return {
    written,
    html: html_,
    head: html_.children.find((c) => c.tag === 'head') ?? null,
    body: html_.children.find((c) => c.tag === 'body') ?? null,
    all,
    quirks: document.mode === 'quirks',
    doctypeEnd,
  }
}

/** @see WAI-ARIA, "heading": level 2 by default */
function levelByRole(attrs: ReadonlyMap<string, string>): number {
  if (attrs.get('role')?.trim().toLowerCase() !== 'heading') return 0
  const level = Number(attrs.get('aria-level') ?? 2)
  return Number.isInteger(level) && level >= 1 ? Math.min(level, 6) : 2
}

function makeEl(node: T.Element, parent: El | null, all: El[]): El {
  const place = node.sourceCodeLocation
  const isHtml = node.namespaceURI === html.NS.HTML
  const attrs = new Map<string, string>()
  for (const attr of node.attrs) attrs.set(attr.name, attr.value)
  const tag = node.tagName
  const el: El = {
    at: place?.startTag ? place.startTag.startOffset : (place?.startOffset ?? -1),
    tagEnd: place?.startTag?.endOffset ?? place?.endOffset ?? -1,
    closeAt: place?.endTag?.startOffset ?? -1,
    end: place?.endOffset ?? -1,
    tag,
    attrs,
    parent,
    children: [],
    depth: parent ? parent.depth + 1 : 0,
    level:
      isHtml && tag.length === 2 && tag[0] === 'h' && tag[1]! >= '1' && tag[1]! <= '6' ? Number(tag[1]) : isHtml ? levelByRole(attrs) : 0,
    isHtml,
    texts: [],
    order: all.length,
    lastOrder: all.length,
  }
  all.push(el)
  return el
}

export const contains = (outer: El, inner: El): boolean => outer.order < inner.order && inner.order <= outer.lastOrder

/** Inline elements: never a part, and no word ends at their edge. */
export const inlineTags: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo big cite code data del dfn em font i ins kbd label mark nobr q s samp small span strike strong sub sup time tt u var wbr br'.split(
    ' ',
  ),
)

const silent = new Set(['script', 'style', 'noscript', 'template', 'title'])

/** An element's text with collapsed white space, up to `limit` characters; pictures give their `alt`. */
export function textOf(el: El, limit = 200): string {
  const parts: string[] = []
  let size = 0
  const stack: { el: El; child: number; text: number }[] = [{ el, child: 0, text: 0 }]
  while (stack.length && size < limit * 2) {
    const top = stack[stack.length - 1]!
    const text = top.el.texts[top.text]
    if (text && text.before <= top.child) {
      parts.push(text.value.length > limit * 4 ? text.value.slice(0, limit * 4) : text.value)
      size += text.value.trim().length
      top.text++
      continue
    }
    const child = top.el.children[top.child++]
    if (!child) {
      if (!inlineTags.has(top.el.tag)) parts.push(' ')
      stack.pop()
      continue
    }
    // A superscript link is a note's number, not text.
    if (silent.has(child.tag) || (child.tag === 'sup' && child.children[0]?.tag === 'a')) continue
    if (child.tag === 'img') parts.push(' ', child.attrs.get('alt') ?? '', ' ')
    else if (child.tag === 'br') parts.push(' ')
    else {
      if (!inlineTags.has(child.tag)) parts.push(' ')
      stack.push({ el: child, child: 0, text: 0 })
    }
  }
  const folded = parts
    .join('')
    .replace(/[\s\u00a0]+/g, ' ')
    .trim()
  return folded.length > limit ? folded.slice(0, limit).trimEnd() : folded
}
