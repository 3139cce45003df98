/** What the page's own scripts built: it has no place in the source, and nothing can be written into it. */
import type { Survey } from '@waybell/core/survey'
import { isPiece } from '../patch.ts'
import { positionOf } from '../stamps.ts'

const MOST = 50

const wordsOf = (all: Iterable<Element>): string[] => {
  const words = new Set<string>()
  for (const el of all) {
    if (positionOf(el) !== undefined || isPiece(el) || el.closest('svg') || !el.getClientRects().length) continue
    const text = (el.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 120)
    if (text && words.size < MOST) words.add(text)
  }
  return [...words]
}

export const builtByScripts = (): Survey['built'] => ({
  links: wordsOf(document.querySelectorAll('a[href^="#"]')),
  headings: wordsOf(document.querySelectorAll('h1, h2, h3, h4, h5, h6, [role="heading"]')),
})
