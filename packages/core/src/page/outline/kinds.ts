/** Kinds of elements that an outline distinguishes. */
import { contains, inlineTags, textOf, type El } from '../tree.ts'

export const skipped = new Set(
  'script style template noscript link meta title base head nav dialog svg iframe canvas object embed audio video select textarea button input frame frameset map area param source track option datalist'.split(
    ' ',
  ),
)
export const media = new Set(['img', 'picture', 'svg', 'video', 'canvas', 'iframe', 'object', 'input', 'button', 'select', 'textarea'])
export const sectioning = new Set(['section', 'article'])
export const wrapperTags = new Set(['div', 'main', 'body', 'center', 'table', 'tbody', 'tr', 'td', 'form'])

export const role = (el: El) => el.attrs.get('role')?.trim().toLowerCase()
export const isNavigation = (el: El) => el.tag === 'nav' || role(el) === 'navigation'
export const isFooter = (el: El) => el.tag === 'footer' || role(el) === 'contentinfo'
export const isBanner = (el: El) => el.tag === 'header' || role(el) === 'banner'
/** Hidden by markup, unless styles override it. */
export const isHiddenByMarkup = (el: El): boolean =>
  (el.attrs.has('hidden') && el.attrs.get('hidden')?.toLowerCase() !== 'until-found') ||
  (el.tag === 'dialog' && !el.attrs.has('open')) ||
  el.attrs.has('popover') ||
  /(^|;)\s*display\s*:\s*none\b/i.test(el.attrs.get('style') ?? '')

export function within(el: El, test: (el: El) => boolean): El | null {
  for (let e: El | null = el; e; e = e.parent) if (test(e)) return e
  return null
}

export const inFooter = (el: El) => within(el, (e) => isFooter(e) && !within(e.parent ?? e, (p) => sectioning.has(p.tag)))
/** Dialogs, overlays and print copies: not part of the page. */
export const isApart = (el: El): boolean =>
  ['dialog', 'alertdialog'].includes(role(el) ?? '') ||
  el.attrs.get('aria-modal') === 'true' ||
  /(^|[\s_-])(modal|dialog|lightbox|popup|off-?canvas|print|print-only|visible-print)([\s_-]|$)/i.test(apartName(el))
const apartName = (el: El): string => (wrapperTags.has(el.tag) || sectioning.has(el.tag) ? (el.attrs.get('class') ?? '') : '')
export const unseen = (el: El) => within(el, (e) => skipped.has(e.tag) || isHiddenByMarkup(e) || !e.isHtml || isApart(e))

const CARD = /(^|[\s_-])card([\s_-]|$)/i
/** By its class, or its children's. */
export const isCard = (el: El): boolean =>
  CARD.test(el.attrs.get('class') ?? '') || (el.children.length === 1 && CARD.test(el.children[0]!.attrs.get('class') ?? ''))

const ROW = /(^|[\s_-])(rows?|grids?|cards|decks?|columns|tiles)([\s_-]|$)/i
/** A row of things side by side, by its class. */
export const isRow = (el: El): boolean => ROW.test(el.attrs.get('class') ?? '')

/** No text and no picture. */
export const isEmpty = (el: El) => textOf(el, 20) === '' && !el.children.some((c) => media.has(c.tag))

const inTables = new Set(['table', 'thead', 'tbody', 'tfoot', 'tr'])

/**
 * The element that ends where a part does: the one around a bare heading; for an anchor, the closest with more content after it.
 * @param block that it stands for, if known
 */
export function holderOf(el: El, heading: El | null, block?: El): El {
  const start = block ?? (heading && contains(heading, el) ? heading : el)
  const says = (e: El) => textOf(e, 200)
  const isBare = start.level > 0 || inlineTags.has(start.tag) || isEmpty(start) || (heading !== null && says(start) === says(heading))
  if (!isBare && !inTables.has(start.tag)) return start
  for (let e = start; e.parent && e.tag !== 'body'; e = e.parent) {
    const { parent } = e
    // Can carry our mark and hold a block.
    const holds = parent.at >= 0 && !inTables.has(parent.tag) && !inlineTags.has(parent.tag)
    if (parent.tag === 'body' || (holds && hasMoreBehind(e, parent))) return parent
  }
  return start
}

const hasMoreBehind = (el: El, parent: El): boolean => {
  const place = parent.children.indexOf(el)
  return (
    parent.texts.some((t) => t.before > place && t.value.trim() !== '') ||
    parent.children.slice(place + 1).some((c) => !skipped.has(c.tag) && !isEmpty(c))
  )
}
