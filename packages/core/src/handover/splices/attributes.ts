/** Attributes and labels. */
import { escapeAttribute, escapeText } from 'entities'
import { attributeRange, nameEnd, type El } from '../../page/index.ts'
import type { TextEdit } from './text-edit.ts'

/** Attributes as they stand in a start tag, with a space before each. */
export const attributesText = (attributes: Record<string, string>): string =>
  Object.entries(attributes)
    .map(([name, value]) => (value === '' ? ` ${name}` : ` ${name}="${escapeAttribute(value)}"`))
    .join('')

/** Sets an attribute, or removes it (null) with the white space before it. */
export function attributeEdits(text: string, el: El, name: string, value: string | null): TextEdit[] {
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

/** Replaces an element's first text, without the white space around it. */
export function setLabel(source: string, el: El, label: string): TextEdit[] {
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
