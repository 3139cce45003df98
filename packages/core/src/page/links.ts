/** Every link of a page: what its `href` says, and what that comes to. */
import { isElsewhere } from '../contract/index.ts'
import { Targets } from './fragment.ts'
import { textOf, type El, type Tree } from './tree.ts'

/**
 * `broken`: a hash without a target. `top`: the page's top, or the page as a whole. `script`: `javascript:`. `outside`: an address
 * elsewhere, `mailto:` and the like. `empty`: nothing, which reloads the page, or no `href` at all. What stands among a menu's links without
 * being one: `button`, and `group`, words that open a list of it or only name it.
 */
export type LinkStatus = 'ok' | 'broken' | 'top' | 'other-page' | 'outside' | 'script' | 'empty' | 'button' | 'group'

export interface LinkElement {
  el: El
  href: string
  status: LinkStatus
  /** Without `#`; null without one. */
  fragment: string | null
  target: El | null
  /** Of a link to another page, see `Address`. */
  path: string | null
  label: string
  /** It is followed in another tab or frame. */
  leaves: boolean
}

export interface Address {
  kind: 'here' | 'other-page' | 'outside' | 'script' | 'empty'
  /** Without `#`, null without one. */
  fragment: string | null
  /** Of another page: its path as written, decoded, without query; with a leading `/` from the site's root. */
  path: string | null
}

/**
 * What an `href` leads to, seen from the page in `file`.
 * @param base the page's `<base href>`: with one, even a bare `#id` leaves the page
 * @see URL Standard, "basic URL parser": surrounding white space goes, tabs and line ends go everywhere
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

/** True where `path`, as the page in `from` writes it, means the site's file `to`: by its name, or as the folder whose index it is. */
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

/** The site's file that `path` means in the page `file`, both from the site's root; null where it leaves that. */
export function resolvePath(file: string, path: string): string | null {
  const out = path.startsWith('/') ? [] : file.split('/').slice(0, -1)
  for (const step of path.split('/')) {
    if (step === '..') {
      if (out.pop() === undefined) return null
    } else if (step !== '.' && step !== '') out.push(step)
  }
  return out.join('/')
}

/** The way from the page in `from` to the file `to`, both from the site's root, as it is written in an address. */
export function relativePath(from: string, to: string): string {
  const [here, there] = [from.split('/').slice(0, -1), to.split('/')]
  let same = 0
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++
  const steps = [...here.slice(same).map(() => '..'), ...there.slice(same)]
  const path = steps.map((step) => encodeURI(step).replace(/[#?]/g, encodeURIComponent)).join('/')
  // What looks like a scheme would be one.
  return /^[^/]*:/.test(path) ? `./${path}` : path
}

export function baseOf(tree: Tree): string | null {
  const base = tree.all.find((el) => el.tag === 'base' && el.isHtml && el.attrs.has('href'))?.attrs.get('href')
  return base === undefined || base.trim() === '' ? null : base
}

/** True where links are followed in another tab or frame unless they say otherwise. */
export const baseLeaves = (tree: Tree): boolean =>
  isElsewhere(tree.all.find((el) => el.tag === 'base' && el.isHtml && el.attrs.has('target'))?.attrs.get('target'))

export function findLinks(tree: Tree, targets: Targets, file: string): LinkElement[] {
  const base = baseOf(tree)
  const leave = baseLeaves(tree)
  const seen = new Set<number>()
  const out: LinkElement[] = []
  for (const el of tree.all) {
    if (el.tag !== 'a' && el.tag !== 'area') continue
    // Without an address it is a link that was not made yet, unless it is a target itself.
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
      // The whole page begins at its top.
      const isTop = found.kind === 'top' || (found.kind === 'element' && (found.element === tree.body || found.element === tree.html))
      link.status = isTop ? 'top' : found.kind === 'element' ? 'ok' : 'broken'
    } else link.status = address.kind
    out.push(link)
  }
  return out
}

/** What the link is called: its text, else `aria-label`, `title`, or the title of a drawing in it. */
export const linkLabel = (el: El): string =>
  textOf(el, 120) || el.attrs.get('aria-label')?.trim() || el.attrs.get('title')?.trim() || drawingTitle(el)

function drawingTitle(el: El): string {
  const title = el.tag === 'title' ? textOf(el, 120) : ''
  return title || el.children.map(drawingTitle).find(Boolean) || ''
}
