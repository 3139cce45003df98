/** The words that carry a title, for names and labels. */

/** Common words of the most frequent languages, without accents. */
const LIGHT = new Set(
  (
    'a an the this that these those and or but nor so of to in on at by for from with without into onto over under about as than then ' +
    'is are was were be been being am do does did has have had will would can could shall should may might must not no ' +
    'i you he she it we they me him her us them my your his its our their who whom whose which what when where why how ' +
    'all any both each every everything everyone more most much many some such only own same too very just really actually simply even ever never there here ' +
    'need needs know knows if because while until also again still yet ' +
    'der die das den dem des ein eine einen einem einer und oder aber von zu zum zur im in am an auf aus bei mit nach vor fur uber unter um als wie so ' +
    'ist sind war waren sein hat haben wird werden kann konnen nicht kein keine ich du er sie es wir ihr uns euch mein dein unser unsere ihre was wer wo wann warum alles mehr sehr nur auch ' +
    'le la les un une des du de au aux et ou mais dans sur sous par pour avec sans est sont ce cet cette ces qui que quoi dont il elle nous vous ils elles notre nos votre vos plus tres ' +
    'el los las lo unos unas y o pero del al en con sin por para sobre es son que quien como cuando donde nuestro nuestra nuestros sus su muy mas ' +
    'il gli i uno di da nel nella sul per tra fra e ed o ma non che chi come dove nostro nostra piu ' +
    'os as um uma dos das no na nos nas com sem por sobre que nosso nossa ' +
    'de het een van voor met naar bij op te en of maar niet wij zij ons onze uw meer'
  ).split(' '),
)

const bare = (word: string) =>
  word
    .normalize('NFKD')
    .replace(/[\p{M}'\u2019]/gu, '')
    .toLowerCase()

/** True for a word that distinguishes titles. */
export const isCarrying = (word: string): boolean => !LIGHT.has(bare(word)) && /[\p{L}\p{N}]/u.test(word)

const trimLight = (words: readonly string[]): string[] => {
  const from = words.findIndex(isCarrying)
  const to = words.findLastIndex(isCarrying)
  return from < 0 ? [] : words.slice(from, to + 1)
}

/** The start, if it makes sense alone and fits; else as many meaningful words as fit. */
export function leadingWords(words: readonly string[], fits: (words: readonly string[]) => boolean): string[] {
  if (fits(words)) return [...words]
  const longest = (of: readonly string[]): string[] => {
    let n = 0
    while (n < of.length && fits(of.slice(0, n + 1))) n++
    return of.slice(0, n)
  }
  const start = trimLight(longest(words))
  if (start.filter(isCarrying).length >= 2) return start
  const carrying = longest(words.filter(isCarrying))
  return carrying.length ? carrying : longest(words)
}

/** Max characters of a menu label. */
export const LABEL_LENGTH = 24

/** A title as label: whole if it fits, else its words that fit, uncut. */
export function labelOf(title: string): string {
  if (title.length <= LABEL_LENGTH) return title
  const [clause = title] = title.split(/\s*[:|\u2013\u2014]\s+|(?<=[.!?])\s+/u)
  const words = (clause.trim() || title).split(/\s+/)
  const label = leadingWords(words, (some) => some.join(' ').length <= LABEL_LENGTH)
    .join(' ')
    .replace(/[\s,;:.]+$/u, '')
  return label ? label.charAt(0).toUpperCase() + label.slice(1) : title
}
