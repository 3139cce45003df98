/**
 * The page as served for measuring: every possible target carries its source position. The agent removes these stamps while the page
 * loads, before any page script runs.
 */
import { attributeRange } from './attribute.ts'
import { byteOffsets, encodeText } from './encoding.ts'
import type { ParsedPage } from './read.ts'
import { readAddress } from './links.ts'
import { splice, type Splice } from './splice.ts'
import { hasReference } from './references.ts'
import { inlineTags, type El } from './tree.ts'

export const STAMP = 'data-wb-at'

// Ours goes first, because the first of duplicate attributes counts. The body may be what
// the page scrolls in.
const isStampable = (el: El, lacksHeadings: boolean): boolean =>
  el.at >= 0 && (el.attrs.has(STAMP) || el.tag === 'body' || isTarget(el) || (lacksHeadings && el.isHtml && inlineHeadings.has(el.tag)))

/** Tags that pages without headings use for them. */
const inlineHeadings = new Set(['font', 'b', 'strong', 'big', 'span'])

const isTarget = (el: El): boolean =>
  el.isHtml &&
  !['html', 'head', 'body'].includes(el.tag) &&
  el.parent?.tag !== 'head' &&
  (!inlineTags.has(el.tag) || el.tag === 'a' || el.attrs.has('id') || hasReference(el) || holdsLink(el))

/** Elements around links move with them when a menu is reordered. */
const holdsLink = (el: El): boolean => el.children.some((c) => c.tag === 'a' || (inlineTags.has(c.tag) && holdsLink(c)))

const early = /(^|\s)(preconnect|dns-prefetch|prefetch|prerender)(\s|$)/i

/**
 * The attribute that would navigate the page or a frame. The policy stops that too, but a page that navigates away can't be measured,
 * and browsers open connections for frames and link hints before checking the policy.
 */
function awayAttribute(el: El): string | null {
  if (el.at < 0) return null
  const leads = (name: string) => readAddress(el.attrs.get(name) ?? '', '', null).kind === 'outside'
  if (el.tag === 'meta' && el.attrs.get('http-equiv')?.trim().toLowerCase() === 'refresh') return 'http-equiv'
  if (el.tag === 'link') return early.test(el.attrs.get('rel') ?? '') && leads('href') ? 'rel' : null
  const name = el.tag === 'object' ? 'data' : ['iframe', 'frame', 'embed'].includes(el.tag) ? 'src' : null
  return name !== null && leads(name) ? name : null
}

/** An attribute edit, as the handover has it. */
interface StampEdit {
  kind: 'attribute'
  at: number
  name: string
  value: string | null
}

/** Stamps as edits: written together with a handover's, they name elements by positions in the original page. */
export function stampEdits({ tree, lacksHeadings }: ParsedPage): StampEdit[] {
  const edits = new Map<string, StampEdit>()
  const put = (at: number, name: string, value: string | null) => edits.set(`${at} ${name}`, { kind: 'attribute', at, name, value })
  for (const el of tree.all) {
    if (isStampable(el, lacksHeadings)) put(el.at, STAMP, `${el.at}`)
    const away = awayAttribute(el)
    if (away) put(el.at, away, null)
  }
  return [...edits.values()]
}

/** @param headMarkup ASCII text for the head's start @returns the stamped page, without pieces of an earlier handover */
export function stampPage(original: Uint8Array, page: ParsedPage, headMarkup: string): Uint8Array {
  const { tree, decoded } = page
  const head = tree.head && tree.head.at >= 0 ? tree.head.tagEnd : tree.html.at >= 0 ? tree.html.tagEnd : tree.doctypeEnd
  const edits = [{ at: head, end: head, text: headMarkup }]
  const seen = new Set<number>()
  for (const el of tree.all) {
    if (!isStampable(el, page.lacksHeadings) || seen.has(el.at)) continue
    seen.add(el.at)
    const at = el.at + 1 + el.tag.length
    edits.push({ at, end: at, text: ` ${STAMP}="${el.at}"` })
  }
  for (const el of tree.all) {
    const name = awayAttribute(el)
    const found = name && attributeRange(decoded.text, el, name)
    if (found) edits.push({ at: found.start, end: found.start, text: 'data-wb-' })
  }
  for (const piece of tree.written) edits.push({ at: piece.at, end: piece.end, text: '' })
  edits.sort((a, b) => a.at - b.at)
  const positions = [...new Set(edits.flatMap((e) => [e.at, e.end]))].sort((a, b) => a - b)
  const offsets = byteOffsets(original, decoded, positions)
  const byteAt = new Map(positions.map((p, i) => [p, offsets[i]!]))
  const splices = edits.map((e): Splice => {
    const offset = byteAt.get(e.at)!
    return { offset, removed: original.subarray(offset, byteAt.get(e.end)!), inserted: encodeText(e.text, decoded, 'html') }
  })
  return splice(original, splices)
}
