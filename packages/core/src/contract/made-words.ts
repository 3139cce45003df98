/** The value of `data-wb-made`: `2 rail side=right from=story` is the menu's number, its form, and its settings. */

export interface MadeWords {
  number: number
  /** Index of the place, for a menu in several places; 0 for one. */
  part: number
  form: string
  words: Record<string, string>
}

/** Spaces separate words, so they're encoded. */
const encode = (word: string): string => word.replace(/[\s%]/g, (c) => encodeURIComponent(c))

export const madeText = ({ number, part, form, words }: MadeWords): string =>
  [part ? `${number}.${part}` : number, form, ...Object.entries(words).map(([name, word]) => `${name}=${encode(word)}`)].join(' ')

/** Null if it isn't such a value. */
export function readMade(text: string): MadeWords | null {
  const [, number, part = '0', form, rest] = /^(\d{1,3})(?:\.(\d{1,4}))? ([a-z]+)((?: [a-z]+=\S*)*)$/i.exec(text) ?? []
  if (number === undefined) return null
  const words = rest!.split(' ').filter(Boolean)
  return {
    number: Number(number),
    part: Number(part),
    form: form!,
    words: Object.fromEntries(words.map((w) => /^([^=]+)=(.*)$/.exec(w)!.slice(1).map(decode))) as Record<string, string>,
  }
}

/** Name of a made menu in findings. */
export const madeMenuNamed = (name: string): string => `the menu “${name}”`

function decode(word: string): string {
  try {
    return decodeURIComponent(word)
  } catch {
    return word
  }
}
