/** Guesses the target of a broken hash. */
import { distance } from 'fastest-levenshtein'
import { typedName, wrapName, type NamingRule } from '../naming/index.ts'
import type { PageReading } from '../page/index.ts'
import type { Section, SitePage } from '../site/index.ts'
import { labelScore } from './match.ts'

export interface Likely {
  section: Section
  /** How the wanted ID differs, as the end of a sentence. */
  why: string
}

/** Min similarity for a guess. */
const LEAST = 0.5

/** Letters and digits of any script, without case and accents. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')

/** One letter added, missing, changed or swapped; two in long words. */
function isNear(a: string, b: string): boolean {
  const [x, y] = [a.toLowerCase(), b.toLowerCase()]
  const isSwapped = [...x].sort().join('') === [...y].sort().join('') && distance(x, y) === 2
  return Math.min(x.length, y.length) >= 4 && (distance(x, y) <= (x.length >= 9 ? 2 : 1) || isSwapped)
}

/**
 * The section that a link probably means, by the strongest reason; null for none or for several that differ only by letters.
 * @param wanted the decoded hash without `#`
 * @param label the link's text
 */
export function likelySection(wanted: string, label: string, page: SitePage, reading: PageReading, rule: NamingRule): Likely | null {
  const hints = new Map(reading.candidates.map((c) => [c.at, c.hints]))
  const hintsOf = (s: Section) => (s.point ? [] : (hints.get(s.at) ?? []))
  const bare = wanted.replace(/^(?:[#\s]|%23)+|\s+$/gi, '')
  const all = page.sections
  const first = (fits: (s: Section) => boolean, why: string): Likely | null => {
    const section = all.find(fits)
    return section ? { section, why } : null
  }
  const only = (fits: (s: Section) => boolean, why: string): Likely | null => {
    const found = all.filter(fits)
    return found.length === 1 ? { section: found[0]!, why } : null
  }
  const same = (a: string, b: string) => a !== '' && a === b
  if (bare !== '') {
    const found =
      (bare !== wanted && first((s) => s.id === bare || s.former.includes(bare), 'an extra # or space')) ||
      first((s) => s.id.toLowerCase() === bare.toLowerCase(), 'only capitals differ') ||
      first((s) => wrapName(bare, rule) === s.id, 'the other system’s prefix or suffix is missing') ||
      first((s) => same(typedName(bare, rule) ?? '', s.id), 'the other system’s prefix or suffix is extra') ||
      only((s) => same(plain(bare), plain(s.id)), 'spaces, signs or accents differ') ||
      only((s) => same(plain(bare), plain(s.title)), 'same as its title') ||
      only((s) => hintsOf(s).some((h) => h === bare), 'it is its class, not its ID') ||
      only((s) => isNear(bare, s.id), 'one letter differs')
    if (found) return found
  }
  const scored = all.map((section) => {
    const like = { title: section.title, id: section.id, hints: hintsOf(section) }
    return { section, score: Math.max(labelScore(bare, like), labelScore(label, like)) }
  })
  const best = scored.sort((a, b) => b.score - a.score)[0]
  return best && best.score >= LEAST ? { section: best.section, why: 'similar words' } : null
}
