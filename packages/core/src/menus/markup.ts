/** Markup of made menus: lists of links, and their openers. */
import { escapeAttribute, escapeText } from 'entities'
import { MOTION, motionText, OFF, type Motion } from '../contract/index.ts'

export interface Entry {
  label: string
  /** Null for an opener. */
  href: string | null
  /** Attributes for the tab it opens in. */
  tab: Readonly<Record<string, string>>
  /** Tooltip: the designer's, or the full text of a shortened label. */
  title?: string
  lang?: string
  /** Keys of screens that it isn't on. */
  off?: readonly string[]
  motion?: Motion
  children: readonly Entry[]
}

/** A link, with a longer name for screen readers if needed. */
type Link = Omit<Entry, 'href' | 'children'> & { href: string | null; says?: string }

interface Form {
  /** Lists open on press; otherwise they're always open. */
  opens: boolean
  /** Text of the button that opens the whole menu; null without one. */
  folds: string | null
  /** Labels have elements of their own. */
  hasMarks: boolean
}

const attributesOf = (all: Record<string, string | undefined>): string =>
  Object.entries(all)
    .map(([name, value]) => (value === undefined ? '' : ` ${name}="${escapeAttribute(value)}"`))
    .join('')

/** The content of the menu's `nav`. */
export function markupOf(entries: readonly Entry[], form: Form): string {
  const list = `<ul class="wb-items">${linesOf(entries, form)}\n</ul>`
  return form.folds === null
    ? `\n${list}\n`
    : `\n<details class="wb-fold"><summary>${escapeText(form.folds)}</summary>\n${list}\n</details>\n`
}

export const linkOf = ({ label, href, tab, title, lang, says, motion }: Link, words = escapeText(label)): string =>
  `<a${attributesOf({ href: href ?? undefined, title, lang, 'aria-label': says, [MOTION]: motion && motionText(motion) })}${attributesOf(tab)}>${words}</a>`

const linesOf = (entries: readonly Entry[], form: Form): string => entries.map((e) => `\n${line(e, form)}`).join('')

function line({ label, href, tab, title, lang, off, motion, children }: Entry, form: Form): string {
  const words = form.hasMarks ? `<span class="wb-label">${escapeText(label)}</span>` : escapeText(label)
  const said = attributesOf({ title, lang })
  const link = href === null ? '' : linkOf({ label, href, tab, title, lang, ...(motion && { motion }) }, words)
  const inner = children.length ? `\n<ul>${linesOf(children, form)}\n</ul>` : ''
  const open = `<li${attributesOf({ [OFF]: off?.length ? off.join(' ') : undefined })}>`
  if (!inner) return `${open}${link}</li>`
  if (!form.opens) return `${open}${link || `<span class="wb-words"${said}>${words}</span>`}${inner}</li>`
  const head = link ? `<summary class="wb-more"${attributesOf({ 'aria-label': label })}></summary>` : `<summary${said}>${words}</summary>`
  return `${open}${link}<details class="wb-group">${head}${inner}</details></li>`
}
