/** Words for arrivals, shared by all views. */
import type { ArrivalSign, Sign } from '@waybell/core'
import { px } from '../ui/index.tsx'

interface Said {
  /** What is wrong, in a word; empty for nothing or if it's all there is to say. */
  word: string
  /** All of it. */
  whole: string
  /** Stands for the length. */
  instead?: string
}

const words: Record<ArrivalSign, (n: string) => Said> = {
  clear: (n) => ({ word: '', whole: `${n} between header and section` }),
  top: () => ({ word: '', whole: 'goes to the very top', instead: 'top' }),
  air: (n) => ({ word: 'air', whole: `${n} between header and section, a large gap` }),
  short: (n) => ({ word: 'too short', whole: `the page is ${n} too short for it to arrive` }),
  below: (n) => ({ word: 'below', whole: `its heading is ${n} below the viewport` }),
  cut: (n) => ({ word: 'cut', whole: `${n} of its heading are covered` }),
  covered: (n) => ({ word: 'covered', whole: `its heading is covered, all ${n} of it` }),
  still: () => ({ word: 'hidden', whole: 'the link does nothing: its target is hidden there', instead: '–' }),
}

/** The figure in px without unit, and the length with it. */
export function gapSaid({ sign, px: n, fromAbove }: Sign): {
  figure: string
  length: string
  word: string
  whole: string
} {
  const said = words[sign](px(n))
  const { instead } = said
  // The header hides on the way down and is there on the way up.
  const [word, whole] =
    fromAbove === undefined
      ? [said.word, said.whole]
      : [`↓ ${Math.round(fromAbove)}`, `${said.whole}; ${px(fromAbove)} from above, where the header is hidden`]
  return { figure: instead ?? String(Math.round(n)), length: instead ?? px(n), word, whole }
}
