/** The markup of a menu that is made: lists of links, and what opens those that open. */
import { escapeAttribute, escapeText } from 'entities'
import { MOTION, motionText, OFF, type Motion } from '../contract/index.ts'

export interface Entry {
  label: string
  /** Null for words that only open a list. */
  href: string | null
  /** Attributes that say in which tab it is followed. */
  tab: Readonly<Record<string, string>>
  /** Said under the pointer: what the designer says, or the whole of what the label says in short. */
  title?: string
  lang?: string
  /** Keys of the screens that it is not on. */
  off?: readonly string[]
  motion?: Motion
  children: readonly Entry[]
}

/** A link, and what a screen reader says of it where that is more than its words. */
type Link = Omit<Entry, 'href' | 'children'> & { href: string | null; says?: string }

interface Form {
  /** Lists open when they are pressed; else they stand open. */
  opens: boolean
  /** The whole opens when these words are pressed; null where it stands open. */
  folds: string | null
  /** Labels stand in an element of their own. */
  hasMarks: boolean
}

const attributesOf = (all: Record<string, string | undefined>): string =>
  Object.entries(all)
    .map(([name, value]) => (value === undefined ? '' : ` ${name}="${escapeAttribute(value)}"`))
    .join('')

/** What stands inside the menu's `nav`. */
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
