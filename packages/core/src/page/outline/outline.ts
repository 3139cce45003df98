/**
 * The outline: which elements are sections. It offers what a designer would put in a menu: the top-level parts. A part is the largest
 * block with at most one heading of the *section level* (the level at which headings start to repeat); a block with more is a wrapper,
 * and its children are tried. Headings without blocks around them and their text are parts themselves.
 */
import { MAX_TARGET_DEPTH } from '../errors.ts'
import { isCalledHeading } from '../headings.ts'
import { contains, inlineTags, type El, type Tree } from '../tree.ts'
import { alsoFound } from './also.ts'
import { findSectionLevel, hasContent, measure } from './facts.ts'
import {
  inFooter,
  isApart,
  isBanner,
  isCard,
  isEmpty,
  isFooter,
  isHiddenByMarkup,
  isNavigation,
  isRow,
  role,
  sectioning,
  skipped,
  unseen,
  within,
  wrapperTags,
} from './kinds.ts'
import { withLinked } from './linked.ts'
import type { Likely, Part } from './parts.ts'

/** Number of sibling parts with the same tag, and the order of the first and last. */
interface Kin {
  count: number
  first: number
  last: number
}

export interface Outline {
  parts: Part[]
  sectionLevel: number
  pageHeader: El | null
  /** The footer behind the content. */
  pageFooter: El | null
  /** Order of the content's first heading, without the site's name; lists of links after it are content. */
  firstHeading: number
  /** True for an element with a counting heading, so it isn't just a bar. */
  holdsHeading(el: El): boolean
}

/** @param linked menu targets with their labels @param earlier IDs of sections in an earlier handover */
export function outline(tree: Tree, linked: ReadonlyMap<El, string>, earlier: ReadonlySet<string>): Outline {
  const body = tree.body
  if (!body) return { parts: [], sectionLevel: 2, pageHeader: null, pageFooter: null, firstHeading: Infinity, holdsHeading: () => false }
  const headings = tree.all.filter((el) => el.level > 0 && el.depth <= MAX_TARGET_DEPTH && !unseen(el) && hasContent(el))
  const inContent = headings.filter((el) => !inFooter(el) && !within(el, (e) => e.tag === 'aside' || isNavigation(e)))
  const sectionLevel = findSectionLevel(inContent.length ? inContent : headings, tree)
  const facts = measure(tree, headings, sectionLevel)
  const linkedSet: ReadonlySet<El> = new Set(linked.keys())
  const found: Likely[] = []
  const headerOf = { el: null as El | null }
  let footer: El | null = null

  const holdsAny = (el: El) => headings.some((h) => h === el || contains(el, h))
  const weightOf = (el: El) => facts.weight[el.order]!
  const majorsOf = (el: El) => facts.majors[el.order]!

  const isBar = (el: El): boolean => {
    if (isNavigation(el)) return true
    const weight = weightOf(el)
    if (isBanner(el)) {
      // Without a heading it's a hero only if the bar is separate.
      if (!holdsAny(el)) return !(headerOf.el && weight >= 40) || facts.linkWeight[el.order]! > 0.5 * weight
      // A name and links with hardly any text: the bar. A hero has a paragraph.
      const own = headings.filter((h) => contains(el, h)).reduce((sum, h) => sum + weightOf(h), 0)
      // The page's title, if its menu is elsewhere above.
      if (headings.some((h) => h.level === 1 && contains(el, h)) && facts.links[el.order]! <= 2 && hasMenuAbove(el)) return false
      const hasText = tree.all.slice(el.order, el.lastOrder + 1).some((e) => e.tag === 'p' && weightOf(e) > 0 && !within(e, isNavigation))
      return !hasText && weight - facts.linkWeight[el.order]! - own < 40
    }
    if (linkedSet.has(el) || sectioning.has(el.tag)) return false
    const own = headings.filter((h) => contains(el, h))
    // A name and links: a bar as old pages have it.
    if (own.length === 1 && own[0]!.level === 1 && found.length === 0 && !headerOf.el) {
      const rest = weight - facts.linkWeight[el.order]! - weightOf(own[0]!)
      // A line of text with links to nearly all parts is the site's tagline.
      const isMenu = facts.links[el.order]! >= 4 && facts.hashWeight[el.order]! >= 0.9 * facts.linkWeight[el.order]!
      return facts.links[el.order]! >= 2 && rest < (isMenu ? 120 : 40)
    }
    return facts.links[el.order]! >= 2 && own.length === 0 && facts.linkWeight[el.order]! >= 0.5 * weight
  }

  const hasMenuAbove = (el: El): boolean =>
    tree.all.some((e) => e.order < el.order && isNavigation(e) && !contains(e, el) && facts.links[e.order]! >= 2)

  const gather = (container: El): void => {
    const kids = container.children.filter(
      (c) =>
        c.isHtml &&
        (!skipped.has(c.tag) || c.tag === 'nav') &&
        !isHiddenByMarkup(c) &&
        !isApart(c) &&
        c.depth <= MAX_TARGET_DEPTH &&
        (c.level > 0 || !inlineTags.has(c.tag) || majorsOf(c) > 0),
    )
    // A lone h1 above the parts is the page's title.
    const isTitle = (h: El) => h.level === 1 && sectionLevel > 1
    const flat = kids.some((c) => c.level > 0 && c.level <= sectionLevel && !isTitle(c))
    // Blocks with a counting heading, by tag.
    const kin = new Map<string, Kin>()
    for (const kid of kids) {
      if (majorsOf(kid) === 0) continue
      const known = kin.get(kid.tag)
      kin.set(kid.tag, { count: (known?.count ?? 0) + 1, first: known?.first ?? kid.order, last: kid.order })
    }
    // Cards in a row belong to the part before them.
    if (found.length && isRow(container) && kids.filter(isCard).length > 1 && kids.every((k) => majorsOf(k) === 0 || isCard(k))) return
    let afterHeading = false
    for (const kid of kids) {
      if (kid.level > 0) {
        if (kid.level <= sectionLevel && !isTitle(kid) && majorsOf(kid) > 0) {
          found.push({ el: kid, heading: kid })
          afterHeading = true
        }
        continue
      }
      if (weightOf(kid) === 0) continue
      if (isBar(kid)) {
        if (!headerOf.el && !found.length) headerOf.el = kid
        continue
      }
      if ((isFooter(kid) || isFooterByName(kid) || (kid === kids.at(-1) && isColophon(kid))) && !linkedSet.has(kid)) {
        footer = kid
        continue
      }
      if (isContents(kid)) continue
      // An aside isn't a part, unless it has an ID.
      if (kid.tag === 'aside' && !kid.attrs.has('id') && !linkedSet.has(kid)) continue
      if (isWrapper(kid)) {
        gather(kid)
        continue
      }
      if (flat && afterHeading && majorsOf(kid) === 0 && !sectioning.has(kid.tag)) continue
      const part = closest(kid)
      if (isPart(part, container, kids) || isBand(kid, kin.get(kid.tag))) found.push({ el: part, heading: leadHeading(part) })
    }
  }

  const isWrapper = (el: El): boolean => {
    const n = majorsOf(el)
    if (n >= 2) {
      if (!sectioning.has(el.tag) && !linkedSet.has(el)) return true
      // A section element stays whole, unless it contains section elements or the page's whole text.
      const inner = headings.filter((h) => contains(el, h) && majorsOf(h) > 0)
      const apart = new Set(inner.map((h) => within(h, (e) => sectioning.has(e.tag))).filter((e) => e && e !== el))
      return apart.size >= 2 || weightOf(el) > 0.7 * weightOf(body)
    }
    if (n === 0 && headings.length === 0) return looksLikeWrapper(el)
    // Sibling section elements are parts, whatever their heading levels.
    return !sectioning.has(el.tag) && !linkedSet.has(el) && el.children.filter((c) => sectioning.has(c.tag) && holdsAny(c)).length >= 2
  }

  // Without headings, a block that fills the page and has several blocks is a wrapper.
  const looksLikeWrapper = (el: El): boolean =>
    wrapperTags.has(el.tag) &&
    !linkedSet.has(el) &&
    weightOf(el) > 0.7 * weightOf(body) &&
    el.children.some((c) => c.isHtml && !inlineTags.has(c.tag) && !skipped.has(c.tag) && c.tag !== 'p' && weightOf(c) > 0)

  /** Descends through single-child blocks to a section element. */
  const closest = (el: El): El => {
    if (linkedSet.has(el) || sectioning.has(el.tag) || el.attrs.has('id')) return el
    let e = el
    for (;;) {
      const heavy = e.children.filter((c) => c.isHtml && !skipped.has(c.tag) && weightOf(c) > 0)
      if (heavy.length !== 1 || heavy[0]!.level > 0 || inlineTags.has(heavy[0]!.tag)) return el
      e = heavy[0]!
      if (linkedSet.has(e) || sectioning.has(e.tag)) return e
    }
  }

  const isPart = (el: El, container: El, siblings: El[]): boolean => {
    if (linkedSet.has(el) || sectioning.has(el.tag) || majorsOf(el) > 0) return true
    if (el.attrs.has('aria-label') || el.attrs.has('aria-labelledby') || role(el) === 'region') return true
    // A banner that isn't a bar is a hero.
    if (isBanner(el)) return true
    if (headings.length === 0) return el.tag !== 'p' && (wrapperTags.has(el.tag) || el.attrs.has('id')) && weightOf(el) >= 20
    // A block with a smaller heading counts among sibling parts of its kind.
    return holdsAny(el) && container.tag !== 'p' && siblings.some((s) => s !== el && s.tag === el.tag && majorsOf(s) > 0)
  }

  /** A table of contents: at most one heading, and links to this page. */
  const isContents = (el: El): boolean => {
    if (linkedSet.has(el) || facts.links[el.order]! < 3) return false
    const own = headings.filter((h) => contains(el, h))
    const rest = weightOf(el) - own.reduce((sum, h) => sum + weightOf(h), 0)
    return own.length <= 1 && facts.hashWeight[el.order]! >= 0.8 * rest
  }

  /** A footer by its name, after everything, without a counting heading. */
  const isFooterByName = (el: El): boolean =>
    found.length > 0 &&
    majorsOf(el) === 0 &&
    !sectioning.has(el.tag) &&
    /(^|[-_\s])(foot|footer|fuss|pied|colophon)($|[-_\s\d])/i.test(`${el.attrs.get('class') ?? ''} ${el.attrs.get('id') ?? ''}`)

  /** The last block, with small headings side by side: hours, address, links. */
  const isColophon = (el: El): boolean => {
    const own = headings.filter((h) => contains(el, h))
    return found.length >= 2 && !sectioning.has(el.tag) && own.length >= 2 && own.every((h) => h.level >= sectionLevel + 2)
  }

  /** A block without a heading among parts of its kind: a quote, figures, client names. */
  const isBand = (el: El, kin: Kin | undefined): boolean =>
    !!kin &&
    kin.count >= 3 &&
    el.order > kin.first &&
    el.order < kin.last &&
    wrapperTags.has(el.tag) &&
    majorsOf(el) === 0 &&
    weightOf(el) >= 12

  const leadHeading = (el: El): El | null => {
    let best: El | null = null
    for (const h of headings) {
      if (h.order > el.lastOrder) break
      if ((h === el || contains(el, h)) && (!best || h.level < best.level)) best = h
    }
    return best ?? calledHeading(el)
  }

  // Several, as in cards, are headings of its children.
  const called = tree.all.filter((el) => isCalledHeading(el) && !unseen(el))
  const calledHeading = (el: El): El | null => {
    const own = called.filter((h) => contains(el, h))
    return own.length === 1 ? own[0]! : null
  }

  gather(body)
  const parts = onFlatPage(withLinked(found, linked, leadHeading, headings), sectionLevel, linkedSet)
  for (const part of alsoFound({ tree, offered: parts, leadHeading, headings, earlier })) parts.push(part)
  parts.sort((a, b) => a.el.order - b.el.order)
  const bar = headerOf.el
  const firstHeading = inContent.find((h) => !bar || !(h === bar || contains(bar, h)))?.order ?? Infinity
  return { parts, sectionLevel, pageHeader: bar, pageFooter: footer, firstHeading, holdsHeading: holdsAny }
}

/** On a page of running text whose parts are headings or anchors, other blocks aren't parts: the title, a side box, a list of pages. */
function onFlatPage(parts: Part[], sectionLevel: number, linked: ReadonlySet<El>): Part[] {
  const isFlat = (p: Part) => isEmpty(p.el) || (p.heading !== null && (p.el === p.heading || contains(p.heading, p.el)))
  const flat = parts.filter(isFlat)
  if (flat.length < 3 || flat.length <= parts.length / 2) return parts
  return parts.filter(
    (p) =>
      isFlat(p) ||
      linked.has(p.el) ||
      p.el.attrs.has('id') ||
      (p.heading !== null && p.heading.level === sectionLevel && !isBesideText(p.el, flat)),
  )
}

/** Outside the element that holds the text. */
const isBesideText = (el: El, flat: readonly Part[]): boolean => !flat.some((p) => p.el.parent && contains(p.el.parent, el))
