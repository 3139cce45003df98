/** What the quick walk saw: a link of a menu that does not do as computed when it is pressed. */
import type { Rule } from '../finding.ts'
import { coveringMenu, isLeftOpen, type TryFault } from '../../walk/index.ts'
import { takePresses, triedLinks } from '../tried.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'walk',
  // What has no target is told where it stands, whether it was tried or not.
  // What a menu that was made covers is told of that, and what one covers that is left open of that.
  inSite: (facts) =>
    triedLinks(facts, ({ fault, why, tried }) =>
      fault && fault !== 'nowhere' && coveringMenu({ fault, tried }) === null && !isLeftOpen({ fault, tried })
        ? { kind: fault, why, fix: tried.isTaken && MISSES.has(fault) ? takePresses(facts) : null }
        : null,
    ),
}

/** What a script that goes its own way may be the reason of. */
const MISSES: ReadonlySet<TryFault> = new Set(['off', 'covered', 'sideways'])
