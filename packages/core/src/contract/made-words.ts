/** What `data-wb-made` says of a menu that is made: `2 rail side=right from=story`, the number of the menu on its page, its form, and words of that. */

export interface MadeWords {
  number: number
  /** Of one that stands in several places, which of them; 0 for one in one place. */
  part: number
  form: string
  words: Record<string, string>
}

/** Words are parted by spaces, so that there are none in them. */
const encode = (word: string): string => word.replace(/[\s%]/g, (c) => encodeURIComponent(c))

export const madeText = ({ number, part, form, words }: MadeWords): string =>
  [part ? `${number}.${part}` : number, form, ...Object.entries(words).map(([name, word]) => `${name}=${encode(word)}`)].join(' ')

/** Null for what says nothing of the kind. */
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

/** How a menu that is made is called in what is told of a page. */
export const madeMenuNamed = (name: string): string => `the menu “${name}”`

function decode(word: string): string {
  try {
    return decodeURIComponent(word)
  } catch {
    return word
  }
}
