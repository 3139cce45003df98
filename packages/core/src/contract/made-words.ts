/** What `data-wb-made` says of a menu that is made: `2 rail side=right from=story`, the number of the menu on its page, its form, and words of that. */

export interface MadeWords {
  number: number
  form: string
  words: Record<string, string>
}

/** Words are parted by spaces, so that there are none in them. */
const encode = (word: string): string => word.replace(/[\s%]/g, (c) => encodeURIComponent(c))

export const madeText = ({ number, form, words }: MadeWords): string =>
  [number, form, ...Object.entries(words).map(([name, word]) => `${name}=${encode(word)}`)].join(' ')

/** Null for what says nothing of the kind. */
export function readMade(text: string): MadeWords | null {
  const [, number, form, rest] = /^(\d{1,3}) ([a-z]+)((?: [a-z]+=\S*)*)$/i.exec(text) ?? []
  if (number === undefined) return null
  const words = rest!.split(' ').filter(Boolean)
  return {
    number: Number(number),
    form: form!,
    words: Object.fromEntries(words.map((w) => /^([^=]+)=(.*)$/.exec(w)!.slice(1).map(decode))) as Record<string, string>,
  }
}

function decode(word: string): string {
  try {
    return decodeURIComponent(word)
  } catch {
    return word
  }
}
