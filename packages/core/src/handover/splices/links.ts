/** Links made from elements, words and buttons. */
import { canBeLink, linkRange, nameEnd, type El, type ParsedPage, type Range } from '../../page/index.ts'
import type { PageEdit } from '../edit.ts'
import { attributeEdits, attributesText } from './attributes.ts'
import type { Part, TextEdit } from './text-edit.ts'

const VOID = new Set(['img', 'hr'])

/**
 * Wraps an element or its words in a link, or turns a button into one. Empty if that's impossible.
 * @param linked ranges of links made before; this one is added
 */
export function linkEdits(
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
    // A link has no button type.
    return [
      { start: el.at + 1, end: name, parts: html(`a${attributesText(attributes)}`) },
      ...attributeEdits(text, el, 'type', null),
      { start: el.closeAt + 2, end: el.closeAt + 2 + (name - el.at - 1), parts: html('a') },
    ]
  }
  const isOpen = of === 'element' && el.closeAt < 0 && !VOID.has(el.tag)
  return [
    { start: range.start, end: range.start, parts: html(`<a${attributesText(attributes)}>`), opens: true },
    // An element without an end tag gets one.
    { start: range.end, end: range.end, parts: html(isOpen ? `</${el.tag}></a>` : '</a>') },
  ]
}
