/** Matches items of a found menu to sections: by hash, else by label. */
import { decodeFragment } from '../contract/index.ts'
import { isCarrying } from '../naming/index.ts'
import type { Candidate, ElementAt, PageLink, PageReading, ReadMenu } from '../page/index.ts'

const words = (text: string): string[] =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/([\p{Ll}])(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** The words of a label or title that carry meaning. */
const carried = (text: string): string => words(text).filter(isCarrying).join(' ') || words(text).join(' ')

/** True when two words share a stem: a prefix of at least four letters that is most of the shorter. */
function sameWord(a: string, b: string): boolean {
  if (a === b) return true
  const shorter = Math.min(a.length, b.length)
  if (shorter < 4) return false
  let n = 0
  while (n < shorter && a[n] === b[n]) n++
  return n >= 4 && n >= shorter - 2 && Math.abs(a.length - b.length) <= 4
}

/** How well a label matches a candidate, 0 to 1. */
export function labelScore(label: string, candidate: Pick<Candidate, 'title' | 'id' | 'hints'>): number {
  const asked = words(label)
  if (!asked.length) return 0
  const title = words(candidate.title)
  if (asked.join(' ') === title.join(' ')) return 1
  const named = words(candidate.id ?? '')
  if (asked.join('') === named.join('')) return 0.95
  const carrying = asked.some(isCarrying) ? asked.filter(isCarrying) : asked
  const share = (have: string[]) => carrying.filter((a) => have.some((h) => sameWord(a, h))).length / carrying.length
  const hints = candidate.hints.flatMap(words)
  const best = Math.max(share(title) * 0.9, share(named) * 0.85, share(hints) * 0.7)
  // If two titles contain the whole label, the shorter wins.
  return best < 0.5 ? 0 : best - Math.min(0.05, title.length / 400)
}

export interface Meaning {
  candidate: Candidate
  /** Assumed from its words; can be confirmed or changed. */
  isLikely: boolean
}

/** Labels of links to the top. */
const HOME =
  /^(home|start|startseite|top|up|back to top|to top|nach oben|accueil|haut|inicio|arriba|in[ií]cio|\u05d3\u05e3 \u05d4\u05d1\u05d9\u05ea|\u2191)$/iu

/** True when a link goes to the page's top on purpose. */
export const leadsHome = ({ label, fragment }: Pick<PageLink, 'label' | 'fragment'>): boolean => !!fragment || HOME.test(label.trim())

/** True when its label means the top and it has no other target. */
export const meansHome = (link: PageLink): boolean =>
  HOME.test(link.label.trim()) && (isPlaceholder(link) || (link.status === 'empty' && link.href.trim() === ''))

/** True for a placeholder hash, which can't name a section. */
export const isPlaceholder = ({ status, fragment }: Pick<PageLink, 'status' | 'fragment'>): boolean =>
  status === 'broken' && !/[\p{L}\p{N}]/u.test((fragment ?? '').replace(/^0$/, ''))

/** True for the site's name: it comes first or equals the page's title. */
export const namesSite = (link: PageLink, { links, title }: Pick<PageReading, 'links' | 'title'>): boolean =>
  link === links[0] || (link.label.length > 2 && title.toLowerCase().includes(link.label.toLowerCase()))

/** True for a link without a target: it reloads the page, goes to the top, or does nothing. */
export const leadsNowhere = (link: PageLink): boolean =>
  link.status === 'broken' || link.status === 'empty' || (link.status === 'top' && !leadsHome(link))

/** True for a menu above or beside the content, and for one in the footer that leads to sections. */
export const isOfPage = ({ place }: Pick<ReadMenu, 'place'>, links: readonly PageLink[]): boolean =>
  place === 'header' || (place === 'footer' && links.filter((l) => l.status === 'ok').length >= 2)

/** The links of those. */
export function linksOfMenus({ menus, links }: Pick<PageReading, 'menus' | 'links'>): Set<ElementAt> {
  const byAt = new Map(links.map((l) => [l.at, l]))
  const own = menus.filter((m) =>
    isOfPage(
      m,
      m.links.flatMap((at) => byAt.get(at) ?? []),
    ),
  )
  return new Set(own.flatMap((m) => m.links))
}

/** An address without `#`: one word, like an ID. */
const bareWord = (href: string): string | null => /^[.#]?([\p{L}\p{N}_-]+)\/?$/u.exec(href.trim())?.[1] ?? null

/** True for a file of the site, or a folder with one, that an address without extension may mean. */
const isFile = (word: string, files: ReadonlySet<string>) =>
  ['', '.html', '.htm', '/index.html', '.php'].some((end) => files.has(word + end))

/**
 * The candidate that each link means: by hash; else by ID that differs only in case; else the best match by label or address words, each
 * candidate once; else by position, if the menu follows the page's order. Links without a match are missing from the map.
 * @param files of the site
 * @param built IDs built by scripts
 * @param guess false to use only hashes
 */
export function matchLinks(
  links: readonly PageLink[],
  candidates: readonly Candidate[],
  { files, guess, built = new Set() }: { files: ReadonlySet<string>; guess: boolean; built?: ReadonlySet<string> },
): Map<PageLink, Meaning> {
  const out = new Map<PageLink, Meaning>()
  const byAt = new Map(candidates.map((c) => [c.at, c]))
  const hasHashes = links.some((l) => l.status === 'ok' || (l.status === 'broken' && l.fragment))
  const open: { link: PageLink; named: string | null }[] = []
  for (const link of links) {
    if (link.status === 'broken' && built.has(decodeFragment(link.fragment ?? ''))) continue
    const direct = link.target === null ? undefined : byAt.get(link.target)
    const fragment = link.fragment?.toLowerCase()
    const inCase = fragment ? candidates.find((c) => c.id?.toLowerCase() === fragment) : undefined
    const hit = direct ?? (link.status === 'broken' ? inCase : undefined)
    const word = link.status === 'other-page' ? bareWord(link.href) : null
    if (hit) out.set(link, { candidate: hit, isLikely: false })
    else if (['broken', 'empty', 'script'].includes(link.status) || (link.status === 'top' && !leadsHome(link)))
      open.push({ link, named: link.fragment || scriptTarget(link.href) })
    else if (word && hasHashes && !isFile(word, files)) open.push({ link, named: word })
  }
  if (!guess) return out
  const used = new Set([...out.values()].map((m) => m.candidate))
  const scored = open
    .flatMap(({ link, named }) =>
      candidates
        .filter((c) => !used.has(c))
        .map((candidate) => {
          const byLabel = labelScore(link.label, candidate)
          const byAddress = named ? labelScore(named, candidate) * 0.9 : 0
          // Offered sections win.
          return { link, candidate, score: Math.max(byLabel, byAddress) - (candidate.offered ? 0 : 0.15) }
        }),
    )
    .filter((s) => s.score >= 0.3)
    .sort((a, b) => b.score - a.score || a.candidate.at - b.candidate.at)
  for (const { link, candidate } of scored) {
    if (out.has(link) || used.has(candidate)) continue
    // An exact title is enough.
    out.set(link, { candidate, isLikely: carried(link.label) !== carried(candidate.title) })
    used.add(candidate)
  }
  for (const [link, candidate] of byOrder(links, candidates, out, new Set(open.map((o) => o.link))))
    out.set(link, { candidate, isLikely: true })
  return out
}

/**
 * Matches the remaining links of a menu by position, one per part of the page. At least a third must be known already, without
 * contradiction; the page's first part may have no item.
 */
function byOrder(
  links: readonly PageLink[],
  candidates: readonly Candidate[],
  known: ReadonlyMap<PageLink, Meaning>,
  open: ReadonlySet<PageLink>,
): [PageLink, Candidate][] {
  const own = links.filter((l) => known.has(l) || (open.has(l) && words(l.label).length > 0))
  const parts = candidates.filter((c) => c.offered && c.depth === 0)
  if (own.length < 3 || own.filter((l) => known.has(l)).length * 3 < own.length) return []
  for (const list of [parts, parts.slice(1)]) {
    const fits = list.length === own.length && own.every((l, n) => !known.has(l) || known.get(l)!.candidate === list[n])
    if (fits) return own.flatMap((l, n): [PageLink, Candidate][] => (known.has(l) ? [] : [[l, list[n]!]]))
  }
  return []
}

/** The ID in an address that runs a script. */
const scriptTarget = (href: string): string | null => /^\s*javascript:.*?['"]#?([\p{L}\p{N}_-]+)['"]/isu.exec(href)?.[1] ?? null
