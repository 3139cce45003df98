/** A menu link that didn't do what was computed when it was tried. */
import type { Rule } from '../finding.ts'
import { coveringMenu, isLeftOpen, type TryFault } from '../../walk/index.ts'
import { takePresses, triedLinks } from '../tried.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'walk',
  // Missing targets are reported by other rules.
  // So is a target covered by a made menu, or by a menu left open.
  inSite: (facts) =>
    triedLinks(facts, ({ fault, why, tried }) =>
      fault && fault !== 'nowhere' && coveringMenu({ fault, tried }) === null && !isLeftOpen({ fault, tried })
        ? { kind: fault, why, fix: tried.isTaken && MISSES.has(fault) ? takePresses(facts) : null }
        : null,
    ),
}

/** Faults that a page script may cause. */
const MISSES: ReadonlySet<TryFault> = new Set(['off', 'covered', 'sideways'])
