/** Every link of a page: its `href`, and where that leads. */
import { isElsewhere } from '../contract/index.ts'
import { Targets } from './fragment.ts'
import { textOf, type El, type Tree } from './tree.ts'

/**
 * `broken`: hash without target. `top`: the page's top, or the page itself. `script`: `javascript:`. `outside`: another address,
 * `mailto:` and the like. `empty`: no or empty `href`. Among menu links without being one: `button`, and `group`, the opener or title of
 * a list.
 */
export type LinkStatus = 'ok' | 'broken' | 'top' | 'other-page' | 'outside' | 'script' | 'empty' | 'button' | 'group'

export interface LinkElement {
  el: El
  href: string
  status: LinkStatus
  /** Without `#`; null without one. */
  fragment: string | null
  target: El | null
  /** For a link to another page, see `Address`. */
  path: string | null
  label: string
  /** Opens in another tab or frame. */
  leaves: boolean
}

export interface Address {
  kind: 'here' | 'other-page' | 'outside' | 'script' | 'empty'
  /** Without `#`; null without one. */
  fragment: string | null
  /** Path to another page as written, decoded, without query; a leading `/` is the site's root. */
  path: string | null
}

/**
 * Where an `href` leads, seen from the page in `file`.
 * @param base the page's `<base href>`: with one, even a bare `#id` leaves the page
 * @see URL Standard, "basic URL parser": surrounding white space, tabs and line ends are dropped
 */
export function readAddress(href: string, file: string, base: string | null): Address {
  const url = href.replace(/^[\u0000-\u0020]+|[\u0000-\u0020]+$/g, '').replace(/[\t\n\r]/g, '')
  if (url === '') return { kind: 'empty', fragment: null, path: null }
  const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(url)?.[1]?.toLowerCase()
  if (scheme) return { kind: scheme === 'javascript' ? 'script' : 'outside', fragment: null, path: null }
  if (/^[\\/]{2}/.test(url)) return { kind: 'outside', fragment: null, path: null }
  const hash = url.indexOf('#')
  const path = hash < 0 ? url : url.slice(0, hash)
  const fragment = hash < 0 ? null : url.slice(hash + 1)
  if (base !== null) {
    const kind = readAddress(base, file, null).kind
    return { kind: kind === 'outside' ? 'outside' : 'other-page', fragment, path: null }
  }
  if (path === '' && fragment !== null) return { kind: 'here', fragment, path: null }
  const own = decode(path)
  if (meansFile(file, own, file)) return { kind: 'here', fragment: fragment ?? '', path: null }
  return { kind: 'other-page', fragment, path: own.replace(/\?.*$/s, '') }
}

const INDEX = /(^|\/)index\.x?html?$/i

/** True when `path`, written in the page `from`, means the file `to`: by name, or as its folder. */
export function meansFile(from: string, path: string, to: string): boolean {
  const found = resolvePath(from, path)
  return found !== null && (found === to || (INDEX.test(to) && found === to.replace(INDEX, '')))
}

function decode(path: string): string {
  try {
    return decodeURI(path)
  } catch {
    return path
  }
}

/** The site's file that `path` means in the page `file`, both from the root; null outside the site. */
export function resolvePath(file: string, path: string): string | null {
  const out = path.startsWith('/') ? [] : file.split('/').slice(0, -1)
  for (const step of path.split('/')) {
    if (step === '..') {
      if (out.pop() === undefined) return null
    } else if (step !== '.' && step !== '') out.push(step)
  }
  return out.join('/')
}

/** Relative path from the page `from` to the file `to`, both from the root. */
export function relativePath(from: string, to: string): string {
  const [here, there] = [from.split('/').slice(0, -1), to.split('/')]
  let same = 0
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++
  const steps = [...here.slice(same).map(() => '..'), ...there.slice(same)]
  const path = steps.map((step) => encodeURI(step).replace(/[#?]/g, encodeURIComponent)).join('/')
  // Avoids reading it as a scheme.
  return /^[^/]*:/.test(path) ? `./${path}` : path
}

export function baseOf(tree: Tree): string | null {
  const base = tree.all.find((el) => el.tag === 'base' && el.isHtml && el.attrs.has('href'))?.attrs.get('href')
  return base === undefined || base.trim() === '' ? null : base
}

/** True when links open in another tab or frame by default. */
export const baseLeaves = (tree: Tree): boolean =>
  isElsewhere(tree.all.find((el) => el.tag === 'base' && el.isHtml && el.attrs.has('target'))?.attrs.get('target'))

export function findLinks(tree: Tree, targets: Targets, file: string): LinkElement[] {
  const base = baseOf(tree)
  const leave = baseLeaves(tree)
  const seen = new Set<number>()
  const out: LinkElement[] = []
  for (const el of tree.all) {
    if (el.tag !== 'a' && el.tag !== 'area') continue
    // Without an address it's an unfinished link, unless it's a target.
    const isUnmade = !el.attrs.has('href') && el.tag === 'a' && !el.attrs.has('name') && !el.attrs.has('id') && textOf(el, 1) !== ''
    const href = isUnmade ? '' : el.attrs.get('href')
    if (href === undefined || el.at < 0 || seen.has(el.at)) continue
    seen.add(el.at)
    const address = readAddress(href, file, base)
    const label = linkLabel(el)
    const target = el.attrs.get('target')
    const leaves = target === undefined ? leave : isElsewhere(target)
    const link: LinkElement = { el, href, status: 'ok', fragment: address.fragment, target: null, path: address.path, label, leaves }
    if (address.kind === 'here') {
      const found = targets.resolve(address.fragment ?? '')
      if (found.kind === 'element') link.target = found.element
      // The page's whole content starts at the top.
      const isTop = found.kind === 'top' || (found.kind === 'element' && (found.element === tree.body || found.element === tree.html))
      link.status = isTop ? 'top' : found.kind === 'element' ? 'ok' : 'broken'
    } else link.status = address.kind
    out.push(link)
  }
  return out
}

/** A link's label: its text, else `aria-label`, `title`, or its drawing's title. */
export const linkLabel = (el: El): string =>
  textOf(el, 120) || el.attrs.get('aria-label')?.trim() || el.attrs.get('title')?.trim() || drawingTitle(el)

function drawingTitle(el: El): string {
  const title = el.tag === 'title' ? textOf(el, 120) : ''
  return title || el.children.map(drawingTitle).find(Boolean) || ''
}
