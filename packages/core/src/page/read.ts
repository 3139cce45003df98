/** Reading a page: bytes in, plain data out. `PageReading` has everything the rest needs and can be sent anywhere; the tree stays here. */
import { decodePage, type DecodedText } from './encoding.ts'
import { findAssets, type Asset } from './assets.ts'
import { MAX_PAGE_BYTES, PageError } from './errors.ts'
import { menuList, type MenuList } from './entries.ts'
import { placedTargets, Targets } from './fragment.ts'
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
  /** As in the source; null without one, or if an earlier element has it. */
  id: string | null
  title: string
  heading: ElementAt | null
  offered: boolean
  depth: number
  line: number
  column: number
  /** For an empty target: its block, where links should arrive. */
  block: ElementAt | null
  /** The element that ends where the part does, if not itself: the one around a heading and its text; `body` if no tag does. */
  holder: ElementAt | 'body' | null
  /** Words for matching labels: class names and labels. */
  hints: string[]
}

export interface PageLink {
  at: ElementAt
  href: string
  status: LinkStatus
  /** Target element; null for the top, or none. */
  target: ElementAt | null
  /** Without `#`; null without one. */
  fragment: string | null
  /** Path to another page of the site as written, decoded, without query. */
  path: string | null
  label: string
  /** True when the label is one piece of text, which can be changed. */
  plain: boolean
  /** Opens in another tab or frame. */
  leaves: boolean
  line: number
  column: number
}

export interface ReadMenu {
  at: ElementAt
  /** The page's own name for it; may be empty. */
  label: string
  /** Above or beside the content, in the footer, or in running text, where it isn't a menu. */
  place: 'header' | 'footer' | 'text'
  /** In page order, with buttons and groups. */
  links: ElementAt[]
  /** It has lists that open. */
  opens: boolean
  /** List depth of each. */
  depths: number[]
  /** Their structure in the markup; null if the order can't be changed. */
  tree: MenuList | null
}

export interface ReadId {
  id: string
  at: ElementAt
  tag: string
  line: number
  column: number
  /** The markup hides it, so links to it do nothing. */
  isHidden: boolean
  /** A section or article without text or pictures. */
  isEmpty: boolean
}

export interface PageReading {
  encoding: string
  declared: boolean
  bytes: number
  title: string
  lang: string
  base: string | null
  /** Its `<base target>` opens links in another tab or frame by default. */
  baseLeaves: boolean
  /** What its own policy blocks, and the line; null for nothing. */
  policy: { blocks: Blocked[]; line: number } | null
  candidates: Candidate[]
  links: PageLink[]
  menus: ReadMenu[]
  /** The bar above the content: the outermost element without content. */
  header: ElementAt | null
  /** Lines of the header and the footer; null without one. */
  headerLine: number | null
  footerLine: number | null
  /** Every ID in page order, including empty ones. */
  ids: ReadId[]
  /** Attributes that refer to elements by ID. */
  references: Reference[]
  assets: Asset[]
  /** No heading tags or roles below the page's title: after measuring, what looks like headings counts. */
  lacksHeadings: boolean
  /** It was read with measured headings. */
  isByLook: boolean
  /** Fixed layout width on phones in px; null if it's the screen's. @see CSS Viewport 1, "The viewport meta tag" */
  fixedWidth: number | null
  /** It has scripts of its own. */
  hasScripts: boolean
  /** What an earlier handover wrote into the page. */
  written: Written
}

export interface ParsedPage {
  decoded: DecodedText
  tree: Tree
  byAt: Map<ElementAt, El>
  /** Source elements that the parser repeated. */
  repeated: Set<ElementAt>
  /** No heading tags or roles below the page's title. */
  lacksHeadings: boolean
  /** Elements that look like headings counted. */
  isByLook: boolean
}

/** Elements that look like headings in a browser, with levels. */
export type Looks = readonly { at: ElementAt; level: number }[]

/**
 * Decodes and parses.
 * @param looks measured headings, for a page without heading tags; without them class names count
 * @throws PageError if it isn't a page, or exceeds a limit
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

/** A page has at least one tag; other files are named for what they are. */
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

/** @param file the page's file name, so that links such as `page.html#id` stay on it */
export function readPage(bytes: Uint8Array, file = 'index.html'): PageReading {
  return readParsed(parsePage(bytes), bytes.length, file)
}

export function readParsed(page: ParsedPage, size: number, file: string): PageReading {
  const { tree, decoded } = page
  const lines = new Lines(decoded.text)
  const written = readWritten(tree)
  const targets = new Targets(tree, placedTargets(tree, written))
  const links = findLinks(tree, targets, file)
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

/** Phones' default layout width. */
const USUAL_WIDTH = 980

/** The last one counts, as in browsers. */
function fixedWidthOf(tree: Tree): number | null {
  const said = tree.all
    .flatMap((el) => (el.tag === 'meta' && el.attrs.get('name')?.toLowerCase() === 'viewport' ? (el.attrs.get('content') ?? '') : []))
    .findLast((content) => /(?:^|[\s,;])(?:width|initial-scale)\s*=/i.test(content))
  if (said === undefined) return USUAL_WIDTH
  const width = /(?:^|[\s,;])width\s*=\s*([\d.]+)/i.exec(said)?.[1]
  return width === undefined ? null : parseFloat(width)
}

/** Has a nested or folding list. */
const opensLists = (menu: El): boolean => {
  const all = menu.children.flatMap(function deep(el: El): El[] {
    return [el, ...el.children.flatMap(deep)]
  })
  return all.some((el) => el.tag === 'details' || (el.tag === 'li' && within(el.parent ?? el, (e) => e.tag === 'li')))
}

/**
 * True for a source element that isn't repeated: the parser repeats unclosed formatting elements, so a target in one would be there many
 * times. The page's own ID stays, because browsers go to the first.
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

/** From menu or bar outwards, as long as no content is included. */
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

/** Repeated formatting elements count once. */
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

/** Number of visible pieces of text in an element. */
function textRuns(el: El): number {
  let n = el.texts.filter((t) => t.value.trim() !== '').length
  for (const child of el.children) n += child.tag === 'svg' ? 0 : textRuns(child)
  return n
}

function titleOf(tree: Tree): string {
  const title = tree.all.find((el) => el.tag === 'title' && el.isHtml && !within(el, (e) => e.tag === 'svg'))
  return title ? textOf(title, 200) : ''
}
