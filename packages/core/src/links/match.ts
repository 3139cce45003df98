/** Matching the items of a found menu to sections: by hash, else by label. */
import type { Candidate, PageLink } from '../page/index.ts'

const words = (text: string): string[] =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/([\p{Ll}])(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** Two words are one where they share a stem: a prefix of at least four letters that is most of the shorter. */
function sameWord(a: string, b: string): boolean {
  if (a === b) return true
  const shorter = Math.min(a.length, b.length)
  if (shorter < 4) return false
  let n = 0
  while (n < shorter && a[n] === b[n]) n++
  return n >= 4 && n >= shorter - 2 && Math.abs(a.length - b.length) <= 4
}

/** How well a label names a candidate: 0 not at all, 1 to the letter. */
export function labelScore(label: string, candidate: Candidate): number {
  const asked = words(label)
  if (!asked.length) return 0
  const title = words(candidate.title)
  if (asked.join(' ') === title.join(' ')) return 1
  const named = words(candidate.id ?? '')
  if (asked.join(' ') === named.join(' ')) return 0.95
  const share = (have: string[]) => asked.filter((a) => have.some((h) => sameWord(a, h))).length / asked.length
  const hints = candidate.hints.flatMap(words)
  const best = Math.max(share(title) * 0.9, share(named) * 0.85, share(hints) * 0.7)
  // Of two titles that hold all of the label, the shorter is meant.
  return best < 0.5 ? 0 : best - Math.min(0.05, title.length / 400)
}

/**
 * The candidate that each link means: the one its hash leads to, else the one whose ID differs from the hash in case only,
 * else the best by label or by the hash's own words, each candidate once. Links that mean none are not in the map.
 */
export function matchLinks(links: readonly PageLink[], candidates: readonly Candidate[]): Map<PageLink, Candidate> {
  const out = new Map<PageLink, Candidate>()
  const byAt = new Map(candidates.map((c) => [c.at, c]))
  const open: PageLink[] = []
  for (const link of links) {
    const direct = link.target === null ? undefined : byAt.get(link.target)
    const fragment = link.fragment?.toLowerCase()
    const inCase = fragment ? candidates.find((c) => c.id?.toLowerCase() === fragment) : undefined
    const hit = direct ?? (link.status === 'broken' ? inCase : undefined)
    if (hit) out.set(link, hit)
    else if (link.status !== 'ok') open.push(link)
  }
  const used = new Set(out.values())
  const scored = open
    .flatMap((link) =>
      candidates
        .filter((c) => !used.has(c))
        .map((candidate) => {
          const byLabel = labelScore(link.label, candidate)
          const byHash = link.fragment ? labelScore(link.fragment, candidate) * 0.9 : 0
          // An offered section before one that was also found.
          return { link, candidate, score: Math.max(byLabel, byHash) - (candidate.offered ? 0 : 0.15) }
        }),
    )
    .filter((s) => s.score >= 0.3)
    .sort((a, b) => b.score - a.score || a.candidate.at - b.candidate.at)
  for (const { link, candidate } of scored) {
    if (out.has(link) || used.has(candidate)) continue
    out.set(link, candidate)
    used.add(candidate)
  }
  return out
}
