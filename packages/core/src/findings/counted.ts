/** Counts for findings: “5 links (“A”, “B”, “C”, …)”. */

const MOST_NAMED = 3

/** @param words may be empty, as for a link with an icon only; repeated ones are named once */
export function named(words: readonly string[], one: string, many: string): string {
  const saying = [...new Set(words.filter((w) => /\p{L}|\p{N}/u.test(w)))]
  const some = saying.slice(0, MOST_NAMED).map((w) => `“${w}”`)
  const list = some.length ? ` (${some.join(', ')}${saying.length > some.length ? ', …' : ''})` : ''
  return `${words.length} ${words.length === 1 ? one : many}${list}`
}
