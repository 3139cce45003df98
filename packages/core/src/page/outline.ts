/**
 * The outline: which elements of a page are its sections. What is offered is what a designer would
 * put in a menu: the top-level parts. A part is the largest block that holds no more than one heading
 * of the page's *section level* (the level at which headings begin to repeat); a block that holds more
 * is only a wrapper, and its own parts are looked at instead. Where headings stand side by side with their
 * text and no block around them, the headings themselves are the parts.
 */
import { MAX_TARGET_DEPTH } from './errors.ts'
import { contains, inlineTags, textOf, type El, type Tree } from './tree.ts'

export interface Part {
  el: El
  heading: El | null
  title: string
  offered: boolean
  /** How many other offered parts this one lies in. */
  depth: number
}

const skipped = new Set(
  'script style template noscript link meta title base head nav dialog svg iframe canvas object embed audio video select textarea button input frame frameset map area param source track option datalist'.split(
    ' ',
  ),
)
const media = new Set(['img', 'picture', 'svg', 'video', 'canvas', 'iframe', 'object', 'input', 'button', 'select', 'textarea'])
const sectioning = new Set(['section', 'article'])
const wrapperTags = new Set(['div', 'main', 'body', 'center', 'table', 'tbody', 'tr', 'td', 'form'])

interface Likely {
  el: El
  heading: El | null
  /** The block that a heading or an anchor stands for. */
  scope?: El
}

/** How many siblings of one tag there are that are parts, and the order of the first and last. */
interface Kin {
  count: number
  first: number
  last: number
}

interface Facts {
  weight: Float64Array
  linkWeight: Float64Array
  links: Uint16Array
  /** Weight of links that stay on the page. */
  hashWeight: Float64Array
  /** Headings of the section level or above, taglines not counted, by order of the element that holds them. */
  majors: Uint32Array
}

const role = (el: El) => el.attrs.get('role')?.trim().toLowerCase()
export const isNavigation = (el: El) => el.tag === 'nav' || role(el) === 'navigation'
const isFooter = (el: El) => el.tag === 'footer' || role(el) === 'contentinfo'
const isBanner = (el: El) => el.tag === 'header' || role(el) === 'banner'
/** Without a box whatever the styles say, as far as they do not undo it. */
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
/** What the page opens over itself, or keeps for print: no part of it, whatever it holds. */
const isApart = (el: El): boolean =>
  ['dialog', 'alertdialog'].includes(role(el) ?? '') ||
  el.attrs.get('aria-modal') === 'true' ||
  /(^|[\s_-])(modal|dialog|lightbox|popup|off-?canvas|print|print-only|visible-print)([\s_-]|$)/i.test(apartName(el))
const apartName = (el: El): string => (wrapperTags.has(el.tag) || sectioning.has(el.tag) ? (el.attrs.get('class') ?? '') : '')
const unseen = (el: El) => within(el, (e) => skipped.has(e.tag) || isHiddenByMarkup(e) || !e.isHtml || isApart(e))

export interface Outline {
  parts: Part[]
  sectionLevel: number
  pageHeader: El | null
  /** What stands behind the content and is none of it. */
  pageFooter: El | null
  /** Order of the first heading of the content, a bar's name not counted; a list of links behind it belongs to the content. */
  firstHeading: number
  /** True where the element holds a heading that counts, so that it is no mere bar. */
  holdsHeading(el: El): boolean
}

/**
 * @param linked elements that a menu of the page already leads to, in document order
 * @param earlier IDs of what an earlier handover of the page has as sections
 */
export function outline(tree: Tree, linked: readonly El[], earlier: ReadonlySet<string>): Outline {
  const body = tree.body
  if (!body) return { parts: [], sectionLevel: 2, pageHeader: null, pageFooter: null, firstHeading: Infinity, holdsHeading: () => false }
  const headings = tree.all.filter((el) => el.level > 0 && el.depth <= MAX_TARGET_DEPTH && !unseen(el) && hasContent(el))
  const inContent = headings.filter((el) => !inFooter(el) && !within(el, (e) => e.tag === 'aside' || isNavigation(e)))
  const sectionLevel = findSectionLevel(inContent.length ? inContent : headings)
  const facts = measure(tree, headings, sectionLevel)
  const linkedSet = new Set(linked)
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
      // Without a heading it is a hero only if the bar stands apart from it.
      if (!holdsAny(el)) return !(headerOf.el && weight >= 40) || facts.linkWeight[el.order]! > 0.5 * weight
      // A name, links and hardly a word more: the bar with the site's name in it. A hero has a paragraph.
      const own = headings.filter((h) => contains(el, h)).reduce((sum, h) => sum + weightOf(h), 0)
      const hasText = tree.all.slice(el.order, el.lastOrder + 1).some((e) => e.tag === 'p' && weightOf(e) > 0 && !within(e, isNavigation))
      return !hasText && weight - facts.linkWeight[el.order]! - own < 40
    }
    if (linkedSet.has(el) || sectioning.has(el.tag)) return false
    const own = headings.filter((h) => contains(el, h))
    // A name and links: a bar as pages had it before there were elements for it.
    if (own.length === 1 && own[0]!.level === 1 && found.length === 0 && !headerOf.el) {
      const rest = weight - facts.linkWeight[el.order]! - weightOf(own[0]!)
      // With links to nearly all parts of the page a line of text is one of the name's.
      const isMenu = facts.links[el.order]! >= 4 && facts.hashWeight[el.order]! >= 0.9 * facts.linkWeight[el.order]!
      return facts.links[el.order]! >= 2 && rest < (isMenu ? 120 : 40)
    }
    return facts.links[el.order]! >= 2 && own.length === 0 && facts.linkWeight[el.order]! >= 0.5 * weight
  }

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
    // A lone h1 above the parts is the page's title and no part of its own.
    const isTitle = (h: El) => h.level === 1 && sectionLevel > 1
    const flat = kids.some((c) => c.level > 0 && c.level <= sectionLevel && !isTitle(c))
    // Blocks that hold a heading that counts, by tag.
    const kin = new Map<string, Kin>()
    for (const kid of kids) {
      if (majorsOf(kid) === 0) continue
      const known = kin.get(kid.tag)
      kin.set(kid.tag, { count: (known?.count ?? 0) + 1, first: known?.first ?? kid.order, last: kid.order })
    }
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
      // What stands beside the text is no part of it, unless the page gives it an ID.
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
      // A section that says so stays whole, unless it holds sections that say so too, or the whole of the page's text.
      const inner = headings.filter((h) => contains(el, h) && majorsOf(h) > 0)
      const apart = new Set(inner.map((h) => within(h, (e) => sectioning.has(e.tag))).filter((e) => e && e !== el))
      return apart.size >= 2 || weightOf(el) > 0.7 * weightOf(body)
    }
    if (n === 0 && headings.length === 0) return looksLikeWrapper(el)
    // Sections side by side say that they are parts, whatever the levels of their headings.
    return !sectioning.has(el.tag) && !linkedSet.has(el) && el.children.filter((c) => sectioning.has(c.tag) && holdsAny(c)).length >= 2
  }

  // On a page without headings, a block that fills the page and holds several blocks is a wrapper.
  const looksLikeWrapper = (el: El): boolean =>
    wrapperTags.has(el.tag) &&
    !linkedSet.has(el) &&
    weightOf(el) > 0.7 * weightOf(body) &&
    el.children.some((c) => c.isHtml && !inlineTags.has(c.tag) && !skipped.has(c.tag) && c.tag !== 'p' && weightOf(c) > 0)

  /** Down through blocks around one block, to the one that says it is a section. */
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
    // What is a banner and no bar is a hero.
    if (isBanner(el)) return true
    if (headings.length === 0) return el.tag !== 'p' && (wrapperTags.has(el.tag) || el.attrs.has('id')) && weightOf(el) >= 20
    // A block with a smaller heading counts where it stands among blocks of its own kind that are parts.
    return holdsAny(el) && container.tag !== 'p' && siblings.some((s) => s !== el && s.tag === el.tag && majorsOf(s) > 0)
  }

  /** A table of contents: a heading at most, and links to places on this page. */
  const isContents = (el: El): boolean => {
    if (linkedSet.has(el) || facts.links[el.order]! < 3) return false
    const own = headings.filter((h) => contains(el, h))
    const rest = weightOf(el) - own.reduce((sum, h) => sum + weightOf(h), 0)
    return own.length <= 1 && facts.hashWeight[el.order]! >= 0.8 * rest
  }

  /** A footer as pages had it before there was an element for it: behind everything, without a heading that counts. */
  const isFooterByName = (el: El): boolean =>
    found.length > 0 &&
    majorsOf(el) === 0 &&
    !sectioning.has(el.tag) &&
    /(^|[-_\s])(foot|footer|fuss|pied|colophon)($|[-_\s\d])/i.test(`${el.attrs.get('class') ?? ''} ${el.attrs.get('id') ?? ''}`)

  /** The last of the page, with nothing but small headings side by side: hours, address, links. */
  const isColophon = (el: El): boolean => {
    const own = headings.filter((h) => contains(el, h))
    return found.length >= 2 && !sectioning.has(el.tag) && own.length >= 2 && own.every((h) => h.level >= sectionLevel + 2)
  }

  /** A block without a heading that stands between parts of its own kind: a quotation, figures, names of clients. */
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
    return best
  }

  gather(body)
  const parts = onFlatPage(withLinked(found, linked, leadHeading, headings), sectionLevel, linkedSet)
  for (const part of alsoFound({ tree, offered: parts, leadHeading, headings, earlier })) parts.push(part)
  parts.sort((a, b) => a.el.order - b.el.order)
  const bar = headerOf.el
  const firstHeading = inContent.find((h) => !bar || !(h === bar || contains(bar, h)))?.order ?? Infinity
  return { parts, sectionLevel, pageHeader: bar, pageFooter: footer, firstHeading, holdsHeading: holdsAny }
}

/**
 * On a page of running text, where the parts are headings or anchors with their text behind them, what else stands there is no part:
 * the title above, a box beside, a list of other pages below.
 */
function onFlatPage(parts: Part[], sectionLevel: number, linked: ReadonlySet<El>): Part[] {
  const isFlat = (p: Part) => p.el === p.heading || isEmpty(p.el)
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

/** What a menu leads to is a section, whatever it looks like; it takes the place of the block that it opens. */
function withLinked(found: Likely[], linked: readonly El[], leadHeading: (el: El) => El | null, headings: El[]): Part[] {
  const parts = [...found]
  for (const el of linked) {
    if (el.depth > MAX_TARGET_DEPTH || unseen(el) || ['html', 'body', 'main', 'head'].includes(el.tag)) continue
    if (parts.some((p) => p.el === el)) continue
    const inside = parts.filter((p) => contains(el, p.el))
    if (inside.length >= 2) continue
    if (inside.length === 1) {
      // A linked block around one part is that part, with the ID that people already use.
      parts[parts.indexOf(inside[0]!)] = { el, heading: inside[0]!.heading }
      continue
    }
    const outer = parts.find((p) => contains(p.el, el))

    const opensOuter =
      outer &&
      (el === outer.heading ||
        (outer.heading && el.tag === 'a' && contains(el, outer.heading)) ||
        (isEmpty(el) && (!outer.heading || el.order < outer.heading.order)))
    const heading = el.level > 0 ? el : (leadHeading(el) ?? (isEmpty(el) ? headingAfter(el, headings) : null))
    if (outer && opensOuter && !outer.el.attrs.has('id')) parts[parts.indexOf(outer)] = { el, heading: outer.heading, scope: outer.el }
    else {
      // An empty target right before a block, as pages have them that shift it up by their header: the block's, which is no second section.
      const block = isEmpty(el) ? firstBehind(el, parts) : undefined
      if (block && !block.el.attrs.has('id') && isNextTo(el, block.el)) {
        parts[parts.indexOf(block)] = { el, heading: block.heading, scope: block.el }
        continue
      }
      // An old anchor in front of a heading that was found by itself: one section, not two.
      const twin = isEmpty(el) || el.level === 0 ? parts.find((p) => p.el === heading && p.heading === heading) : undefined
      if (twin) parts[parts.indexOf(twin)] = { el, heading }
      else parts.push({ el, heading })
    }
  }
  parts.sort((a, b) => a.el.order - b.el.order)
  return parts.map(({ el, heading }) => ({
    el,
    heading,
    title: titleOf(el, heading),
    offered: true,
    depth: parts.filter((p) => p.el !== el && contains(p.scope ?? p.el, el)).length,
  }))
}

function firstBehind(el: El, parts: readonly Likely[]): Likely | undefined {
  let first: Likely | undefined
  for (const part of parts) if (part.el.order > el.lastOrder && (!first || part.el.order < first.el.order)) first = part
  return first
}

/** Nothing but markup around it, or other empty elements, stands between an element and a block behind it. */
function isNextTo(el: El, block: El): boolean {
  for (let e = el; e.parent; e = e.parent) {
    const place = e.parent.children.indexOf(e)
    const to = e.parent.children.findIndex((c) => c === block || contains(c, block))
    if (e.parent.texts.some((t) => t.value.trim() !== '' && t.before > place && (to < 0 || t.before <= to))) return false
    if (e.parent.children.slice(place + 1, to < 0 ? undefined : to).some((c) => !isEmpty(c))) return false
    if (to >= 0) {
      for (let inner = e.parent.children[to]!; inner !== block;) {
        const next = inner.children.find((c) => c === block || contains(c, block))!
        if (inner.children.slice(0, inner.children.indexOf(next)).some((c) => !isEmpty(c))) return false
        inner = next
      }
      return true
    }
  }
  return false
}

/** Neither words nor a picture in it. */
export const isEmpty = (el: El) => textOf(el, 20) === '' && !el.children.some((c) => media.has(c.tag))

const headingAfter = (el: El, headings: El[]): El | null => headings.find((h) => h.order > el.order) ?? null

/** Nothing but markup stands between an element and a heading behind it. */
function standsBefore(el: El, heading: El | undefined, tree: Tree): boolean {
  if (!heading || heading.order - el.order > 8) return false
  const isText = (t: { value: string }) => t.value.trim() !== ''
  if (tree.all.slice(el.lastOrder + 1, heading.order).some((e) => e.texts.some((t) => isText(t) && !contains(e, heading)))) return false
  for (let e = el; e.parent; e = e.parent) {
    const place = e.parent.children.indexOf(e)
    const end = contains(e.parent, heading) ? e.parent.children.findIndex((c) => c === heading || contains(c, heading)) : Infinity
    if (e.parent.texts.some((t) => isText(t) && t.before > place && t.before <= end)) return false
    if (end !== Infinity) return true
  }
  return true
}

/** An anchor as pages had them before any element could be a target: empty, with a name or an ID. */
const isAnchor = (el: El): boolean =>
  (el.tag === 'a' || el.tag === 'span') && isEmpty(el) && !!(el.attrs.get('id') || (el.tag === 'a' && el.attrs.get('name')))

interface AlsoInput {
  tree: Tree
  offered: Part[]
  leadHeading: (el: El) => El | null
  headings: El[]
  earlier: ReadonlySet<string>
}

/** Parts that may be added: inner sections, footers, other headings, whatever else carries an ID and text, and what was a section before. */
function alsoFound({ tree, offered, leadHeading, headings, earlier }: AlsoInput): Part[] {
  const taken = new Set(offered.map((p) => p.el))
  const headed = new Set(offered.map((p) => p.heading))
  const isHeading = new Set(headings)
  const out: Part[] = []
  let next = 0
  for (const el of tree.all) {
    if (taken.has(el) || !el.isHtml || el.at < 0 || el.depth > MAX_TARGET_DEPTH) continue
    const inner = (sectioning.has(el.tag) || isFooter(el) || (el.level > 0 && isHeading.has(el))) && !headed.has(el)
    const named = el.attrs.has('id') && !inlineTags.has(el.tag) && !['body', 'html', 'input', 'li'].includes(el.tag)
    const wasSection = earlier.has(el.attrs.get('id') || (el.tag === 'a' && el.attrs.get('name')) || '')
    while (next < headings.length && headings[next]!.order <= el.order) next++
    if (isAnchor(el) && !wasSection) {
      // What stands right before a heading is named by it; where that has a section already, it would be the same one twice.
      const heading = standsBefore(el, headings[next], tree) ? headings[next]! : null
      if (unseen(el) || (heading && (headed.has(heading) || taken.has(heading)))) continue
      out.push({
        el,
        heading,
        title: heading ? titleOf(el, heading) : (el.attrs.get('id') ?? el.attrs.get('name'))!,
        offered: false,
        depth: offered.filter((p) => contains(p.el, el)).length,
      })
      continue
    }
    if (!wasSection && (!(inner || named) || unseen(el) || (named && !inner && isEmpty(el)))) continue
    const heading = el.level > 0 ? el : leadHeading(el)
    out.push({ el, heading, title: titleOf(el, heading), offered: false, depth: offered.filter((p) => contains(p.el, el)).length })
    if (out.length >= 10000) break
  }
  return out
}

const hasContent = (el: El) => textOf(el, 10) !== ''

const LONGEST_TITLE = 120

/** No longer than a title may be, and no word cut. */
const wholeWords = (text: string): string => (text.length > LONGEST_TITLE ? text.slice(0, LONGEST_TITLE).replace(/\s+\S*$/, '') : text)

/** The heading inside, else `aria-label`, else the first words, else the kind of element. */
function titleOf(el: El, heading: El | null): string {
  const label = el.attrs.get('aria-label')?.trim()
  // A sign at a heading's end that links to it is no word of it.
  const text =
    (heading && wholeWords(textOf(heading, LONGEST_TITLE + 1)).replace(/\s*[\u00b6\u00a7#\u{1f517}]$/u, '')) ||
    label ||
    textOf(el, 80).split(' ').slice(0, 5).join(' ')
  return text || el.tag
}

/** The highest level at which headings repeat; where none does, the highest there is. */
function findSectionLevel(headings: El[]): number {
  const counts = [0, 0, 0, 0, 0, 0, 0]
  for (const h of headings) if (!isTagline(h)) counts[h.level]!++
  const repeated = counts.findIndex((n, level) => level > 0 && n >= 2)
  const present = counts.findIndex((n, level) => level > 0 && n > 0)
  return repeated > 0 ? repeated : present > 0 ? present : 2
}

/** A heading right under a higher one, with nothing between: a tagline, not a section's heading. */
function isTagline(h: El): boolean {
  const siblings = h.parent?.children ?? []
  const before = siblings[siblings.indexOf(h) - 1]
  if (!before || before.level === 0 || before.level >= h.level) return false
  // Under the page's title another heading may well open the first section, if more follow beside it.
  return !siblings.some((s) => s !== h && s.level === h.level)
}

function measure(tree: Tree, headings: El[], sectionLevel: number): Facts {
  const n = tree.all.length
  const facts: Facts = {
    weight: new Float64Array(n),
    linkWeight: new Float64Array(n),
    links: new Uint16Array(n),
    hashWeight: new Float64Array(n),
    majors: new Uint32Array(n),
  }
  for (const h of headings) if (h.level <= sectionLevel && !isTagline(h)) facts.majors[h.order] = 1
  // From the last element to the first, children come before their parents.
  for (let i = n - 1; i >= 0; i--) {
    const el = tree.all[i]!
    if (skipped.has(el.tag) && el.tag !== 'nav') {
      if (media.has(el.tag) && el.parent) facts.weight[el.parent.order]! += 5
      continue
    }
    if (el.tag === 'img' || el.tag === 'hr') facts.weight[i]! += el.tag === 'img' ? 5 : 0
    for (const text of el.texts) facts.weight[i]! += text.value.length > 4096 ? text.value.length : text.value.trim().length
    if (el.tag === 'a') {
      facts.links[i]!++
      facts.linkWeight[i] = facts.weight[i]!
      if (el.attrs.get('href')?.trim().startsWith('#')) facts.hashWeight[i] = facts.weight[i]!
    }
    const up = el.parent
    if (!up) continue
    facts.weight[up.order]! += facts.weight[i]!
    facts.linkWeight[up.order]! += facts.linkWeight[i]!
    facts.hashWeight[up.order]! += facts.hashWeight[i]!
    facts.links[up.order] = Math.min(65535, facts.links[up.order]! + facts.links[i]!)
    facts.majors[up.order]! += facts.majors[i]!
  }
  return facts
}
