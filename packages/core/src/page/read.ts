/**
 * Reading a page: bytes in, plain data out. `PageReading` holds what the rest of Way Bell needs to know of
 * a page and can be sent anywhere; the tree stays here.
 */
import { decodePage, type DecodedText } from './encoding.ts'
import { findAssets, type Asset } from './assets.ts'
import { MAX_PAGE_BYTES, PageError } from './errors.ts'
import { menuList, type MenuList } from './entries.ts'
import { Targets } from './fragment.ts'
import { levelBy } from './headings.ts'
import { Lines } from './lines.ts'
import { baseLeaves, baseOf, findLinks, type LinkStatus } from './links.ts'
import { findMenus, menuTargets } from './menus.ts'
import { blockedBy, type Blocked } from './policy.ts'
import { readWritten, type Written } from './written.ts'
import { contains, parseTree, textOf, type El, type ElementAt, type Tree } from './tree.ts'
import { findReferences, type Reference } from './references.ts'
import { hasScripts } from './scripts.ts'
import { isEmpty, isHiddenByMarkup, outline, within, type Part } from './outline/index.ts'

export interface Candidate {
  at: ElementAt
  tag: string
  /** As the page has it; null without one, or where another element has it first. */
  id: string | null
  title: string
  heading: ElementAt | null
  offered: boolean
  depth: number
  line: number
  column: number
  /** Of an empty target, the block that it stands for: where that begins is where a link is to arrive. */
  block: ElementAt | null
  /** What ends where the part does, where that is not the element: what holds a heading and its text; `body` where no tag stands for it. */
  holder: ElementAt | 'body' | null
  /** Words that name it for a menu's labels: class names and labels. */
  hints: string[]
}

export interface PageLink {
  at: ElementAt
  href: string
  status: LinkStatus
  /** Target element; null for the top and for what has none. */
  target: ElementAt | null
  /** Without `#`; null without one. */
  fragment: string | null
  /** Of another page of the site: its path as written, decoded, without query. */
  path: string | null
  label: string
  /** True where the label is one run of text, which can be changed. */
  plain: boolean
  /** It is followed in another tab or frame. */
  leaves: boolean
  line: number
  column: number
}

export interface ReadMenu {
  at: ElementAt
  /** The page's own name for it, or an empty string. */
  label: string
  /** Above or beside the page's content, at its foot, or in the text, where it is no menu of the page. */
  place: 'header' | 'footer' | 'text'
  /** In page order; buttons and words among them too. */
  links: ElementAt[]
  /** It has lists that open. */
  opens: boolean
  /** Of each of these, in how many lists of the menu it stands. */
  depths: number[]
  /** How they stand in the markup; null where they do not stand so that their order could be changed. */
  tree: MenuList | null
}

export interface ReadId {
  id: string
  at: ElementAt
  tag: string
  line: number
  column: number
  /** The markup keeps it from having a box, so that no link scrolls to it. */
  isHidden: boolean
  /** A section or article with neither words nor a picture in it. */
  isEmpty: boolean
}

export interface PageReading {
  encoding: string
  declared: boolean
  bytes: number
  title: string
  lang: string
  base: string | null
  /** By its `<base target>` links are followed in another tab or frame unless they say otherwise. */
  baseLeaves: boolean
  /** What its own policy keeps from running in it, and the line that says so; null for nothing. */
  policy: { blocks: Blocked[]; line: number } | null
  candidates: Candidate[]
  links: PageLink[]
  menus: ReadMenu[]
  /** The bar above the content, outermost element that holds none of it. */
  header: ElementAt | null
  /** Lines of the bar above the content and of the footer behind it; null without one. */
  headerLine: number | null
  footerLine: number | null
  /** Every ID of the page, an empty one too, in page order. */
  ids: ReadId[]
  /** Attributes that name elements by their IDs. */
  references: Reference[]
  assets: Asset[]
  /** No element below the page's title says that it is a heading: what looks like one counts, once that was measured. */
  lacksHeadings: boolean
  /** It was read with these. */
  isByLook: boolean
  /** How wide phones lay the page out, in px, where that is not as wide as they are. @see CSS Viewport 1, "The viewport meta tag" */
  fixedWidth: number | null
  /** Scripts of the page's own run in it. */
  hasScripts: boolean
  /** What an earlier handover wrote into the page. */
  written: Written
}

export interface ParsedPage {
  decoded: DecodedText
  tree: Tree
  byAt: Map<ElementAt, El>
  /** Those of the source that the parser made more than one element of. */
  repeated: Set<ElementAt>
  /** No element below the page's title says that it is a heading. */
  lacksHeadings: boolean
  /** What looks like one was taken for one. */
  isByLook: boolean
}

/** What looks like a heading in a browser, with its level. */
export type Looks = readonly { at: ElementAt; level: number }[]

/**
 * Decodes and parses.
 * @param looks headings by their look, of a page where none says so; without them classes are gone by
 * @throws PageError for what is no page, or passes a bound
 */
export function parsePage(bytes: Uint8Array, looks: Looks = []): ParsedPage {
  if (bytes.length > MAX_PAGE_BYTES)
    throw new PageError(
      'page-too-big',
      `the page has ${(bytes.length / 1048576).toFixed(1)} MB, more than the ${MAX_PAGE_BYTES / 1048576} MB that are read; split it, or move its data into files of their own`,
    )
  const decoded = decodePage(bytes)
  if (decoded.encoding === 'replacement')
    throw new PageError(
      'page-not-html',
      'the page says it is in a character set that browsers no longer read; save it as UTF-8 and bring that in',
    )
  if (decoded.text.trim() === '') throw new PageError('page-empty', 'the file is empty; choose the HTML file of the page')
  if (/^\s*<![^>]*$/.test(decoded.text))
    throw new PageError('page-empty', 'the file is cut off in its first line; save it again and bring that in')
  checkIsHtml(decoded)
  const tree = parseTree(decoded.text)
  if (!tree.body)
    throw new PageError('page-frameset', 'the page is a frameset and has no text of its own; bring in the page of its main frame')
  const lacksHeadings = !tree.all.some((el) => el.level > 1)
  if (lacksHeadings) levelBy(tree.all, looks)
  const byAt = new Map<ElementAt, El>()
  const repeated = new Set<ElementAt>()
  for (const el of tree.all) {
    if (el.at < 0) continue
    if (byAt.has(el.at)) repeated.add(el.at)
    else byAt.set(el.at, el)
  }
  return { decoded, tree, byAt, repeated, lacksHeadings, isByLook: lacksHeadings && looks.length > 0 }
}

/** A page has at least one tag; other files that are text, and files that are not, are named for what they are. */
function checkIsHtml({ text, encoding }: DecodedText): void {
  const start = text.slice(0, 4096)
  const kind = start.startsWith('%PDF')
    ? 'a PDF'
    : start.startsWith('PK\u0003\u0004')
      ? 'a ZIP'
      : /^.PNG\r\n/.test(start)
        ? 'a picture'
        : start.startsWith('GIF8')
          ? 'a picture'
          : null
  const controls = encoding.startsWith('utf-16') ? 0 : (start.match(/[\u0001-\u0008\u000e-\u001a\u001c-\u001f]/g)?.length ?? 0)
  const tag = /<(?:!doctype\s|!--|[a-z][a-z0-9-]*[\s/>])/i.test(text.slice(0, 262144))
  if (kind || controls > start.length / 20 || !tag)
    throw new PageError('page-not-html', `the file is ${kind ?? 'not HTML: it has no tag'}; choose the HTML file of the page`)
}

/** @param file the page's own file name, by which links such as `page.html#id` are known to stay on it */
export function readPage(bytes: Uint8Array, file = 'index.html'): PageReading {
  return readParsed(parsePage(bytes), bytes.length, file)
}

export function readParsed(page: ParsedPage, size: number, file: string): PageReading {
  const { tree, decoded } = page
  const lines = new Lines(decoded.text)
  const targets = new Targets(tree)
  const links = findLinks(tree, targets, file)
  const written = readWritten(tree)
  const found = outline(tree, menuTargets(links), new Set(written.settings?.sections))
  const menus = findMenus(tree, links, found, titleOf(tree))
  const among = menus.flatMap((m) => m.items.map(({ link }) => link)).filter((l) => l.status === 'button' || l.status === 'group')
  const all = among.length
    ? [...new Map([...links, ...among].map((l) => [l.el.at, l])).values()].sort((a, b) => a.el.order - b.el.order)
    : links
  const blocked = blockedBy(tree)
  const place = (el: El) => lines.at(Math.max(0, el.at))
  const earlier = written.header === null ? undefined : page.byAt.get(written.header)
  const header = earlier ?? headerElement(found.pageHeader, menus.find((m) => m.place === 'header')?.el ?? null, found.parts)
  return {
    encoding: decoded.encoding,
    declared: decoded.declared,
    bytes: size,
    title: titleOf(tree),
    lang: tree.html.attrs.get('lang') ?? '',
    base: baseOf(tree),
    baseLeaves: baseLeaves(tree),
    policy: blocked && { blocks: blocked.kinds, line: lines.at(Math.max(0, blocked.at)).line },
    candidates: found.parts.filter((p) => stands(p.el, page)).map((p) => candidate(p, targets, place)),
    links: all.map((link) => ({
      at: link.el.at,
      href: link.href,
      status: link.status,
      target: link.target && link.target.at >= 0 ? link.target.at : null,
      fragment: link.fragment,
      path: link.path,
      label: link.label,
      plain: textRuns(link.el) === 1,
      leaves: link.leaves,
      ...place(link.el),
    })),
    menus: menus.map(({ el, items, place }) => ({
      at: el.at,
      label: el.attrs.get('aria-label') ?? '',
      place,
      links: items.map(({ link }) => link.el.at),
      opens: opensLists(el),
      depths: items.map(({ depth }) => depth),
      tree: menuList(
        el,
        items.map(({ link }) => link),
      ),
    })),
    header: header && header.at >= 0 ? header.at : null,
    headerLine: header && header.at >= 0 ? place(header).line : null,
    footerLine: found.pageFooter && found.pageFooter.at >= 0 ? place(found.pageFooter).line : null,
    ids: readIds(tree, place),
    references: findReferences(tree, new Set(targets.byId.keys())),
    assets: findAssets(tree, lines, file),
    lacksHeadings: page.lacksHeadings,
    isByLook: page.isByLook,
    fixedWidth: fixedWidthOf(tree),
    hasScripts: hasScripts(tree),
    written,
  }
}

/** As phones lay out what says nothing of it. */
const USUAL_WIDTH = 980

/** By the last that says it, as browsers have it. */
function fixedWidthOf(tree: Tree): number | null {
  const said = tree.all
    .flatMap((el) => (el.tag === 'meta' && el.attrs.get('name')?.toLowerCase() === 'viewport' ? (el.attrs.get('content') ?? '') : []))
    .findLast((content) => /(?:^|[\s,;])(?:width|initial-scale)\s*=/i.test(content))
  if (said === undefined) return USUAL_WIDTH
  const width = /(?:^|[\s,;])width\s*=\s*([\d.]+)/i.exec(said)?.[1]
  return width === undefined ? null : parseFloat(width)
}

/** A list within an entry of another, or one that folds. */
const opensLists = (menu: El): boolean => {
  const all = menu.children.flatMap(function deep(el: El): El[] {
    return [el, ...el.children.flatMap(deep)]
  })
  return all.some((el) => el.tag === 'details' || (el.tag === 'li' && within(el.parent ?? el, (e) => e.tag === 'li')))
}

/**
 * In the source, and there alone: of an unclosed formatting element that the parser repeats a target would stand once in the file and many
 * times in the page. The page's own stays, since a browser goes to its first.
 */
function stands(el: El, { byAt, repeated }: ParsedPage): boolean {
  return el.at >= 0 && byAt.get(el.at) === el && (!repeated.has(el.at) || el.attrs.has('id') || el.attrs.has('name'))
}

function candidate(part: Part, targets: Targets, place: (el: El) => { line: number; column: number }): Candidate {
  const { el } = part
  const id = el.attrs.get('id') || (el.tag === 'a' ? el.attrs.get('name') : undefined)
  return {
    at: el.at,
    tag: el.tag,
    id: id && (targets.byId.get(id) ?? targets.byName.get(id)) === el ? id : null,
    title: part.title,
    heading: part.heading && part.heading.at >= 0 ? part.heading.at : null,
    offered: part.offered,
    depth: part.depth,
    block: part.block && part.block.at >= 0 ? part.block.at : null,
    holder: part.holder === el || !contains(part.holder, el) ? null : part.holder.at >= 0 ? part.holder.at : 'body',
    ...place(el),
    hints: [el.attrs.get('aria-label') ?? '', ...(el.attrs.get('class') ?? '').split(/\s+/)].filter(Boolean),
  }
}

/** From the menu, or the bar, outwards while no content is taken in. */
function headerElement(bar: El | null, menu: El | null, parts: Part[]): El | null {
  let el = menu ?? bar
  if (!el) return null
  const offered = parts.filter((p) => p.offered)
  while (el.parent && !['body', 'main', 'html'].includes(el.parent.tag)) {
    const up: El = el.parent
    if (offered.some((p) => p.el === up || contains(up, p.el) || (p.heading && contains(up, p.heading)))) break
    el = up
  }
  return el
}

/** The parser repeats an unclosed formatting element; in the source it stands once. */
function readIds(tree: Tree, place: (el: El) => { line: number; column: number }): ReadId[] {
  const seen = new Set<string>()
  return tree.all.flatMap((el): ReadId[] => {
    const id = el.attrs.get('id')
    if (id === undefined || seen.has(`${el.at} ${id}`)) return []
    if (el.at >= 0) seen.add(`${el.at} ${id}`)
    return [
      {
        id,
        at: el.at,
        tag: el.tag,
        ...place(el),
        isHidden: within(el, isHiddenByMarkup) !== null,
        isEmpty: (el.tag === 'section' || el.tag === 'article') && isEmpty(el),
      },
    ]
  })
}

/** How many runs of visible text the element holds. */
function textRuns(el: El): number {
  let n = el.texts.filter((t) => t.value.trim() !== '').length
  for (const child of el.children) n += child.tag === 'svg' ? 0 : textRuns(child)
  return n
}

function titleOf(tree: Tree): string {
  const title = tree.all.find((el) => el.tag === 'title' && el.isHtml && !within(el, (e) => e.tag === 'svg'))
  return title ? textOf(title, 200) : ''
}
