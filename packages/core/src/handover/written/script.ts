/** The script, with the parts that the page needs: it marks the current item and corrects offsets. */
import type { PlannedEdit } from '../edit.ts'
import { coverOfBar } from '../../arrival/index.ts'
import { builtMenusOf } from '../../menus/index.ts'
import { isFound, isMade, type FoundForm } from '../../site/index.ts'
import { mayChange } from '../growth.ts'
import { SCRIPT_PARTS, type ScriptPart } from '../input.ts'
import { needsScript, travelsOtherwise, type WritingInput } from '../writing.ts'
import { coversOf, whyArrivals } from './arrivals.ts'
import { opensLists } from './lists.ts'
import { changesItself } from './made-form.ts'
import { shiftedIds } from './settings.ts'

function partsOf(input: WritingInput, arrivals: boolean): ScriptPart[] {
  const { page, reading, anchors, surveys } = input
  const built = builtMenusOf(page, Object.values(surveys))
  const found = page.menus.filter(isFound)
  const marks = [...found.map((m) => (m.form as FoundForm).mark), ...built.map((m) => m.mark)]
  const bar = coverOfBar(page, null) > 0
  const sticky = Object.values(surveys).some((s) => s.parts.some((p) => p.sticks))
  const has: Record<ScriptPart, boolean> = {
    arrivals,
    shifted: !arrivals && shiftedIds(input).length > 0,
    tops: !arrivals && hasTops(input),
    bar: !arrivals && bar,
    slides: !arrivals && (page.menus.some(isMade) || Object.values(surveys).some((s) => s.menus.some((m) => m.slides))),
    sticky,
    anchors: sticky || anchors.some((a) => a.isFormer || a.placed),
    classes: sticky || marks.some((mark) => typeof mark === 'object'),
    header: arrivals ? sticky || page.header !== null || mayChange(input) : bar || coversOf(input).some((px) => px > 0),
    moves: !!page.header?.onScroll,
    presses: !!page.travel.takesPresses,
    shuts: found.some((m) => (m.form as FoundForm).shutBy !== undefined),
    made: sticky || page.menus.some((m) => isMade(m) && changesItself(m)),
    lists: sticky || opensLists(input),
    scripts: sticky || reading.hasScripts,
    scroller: sticky || page.scroller !== undefined,
    shrinks: mayChange(input),
    steady: !!page.header?.steady,
    travel: travelsOtherwise(page),
  }
  return SCRIPT_PARTS.filter((part) => has[part])
}

/** Some link leads to the page's top, once items have their targets. */
function hasTops({ page, reading }: WritingInput): boolean {
  const items = page.menus.flatMap((m) => m.items)
  const others = new Set(items.flatMap(({ target, links }) => (target.kind === 'top' ? [] : links)))
  return items.some((i) => i.target.kind === 'top') || reading.links.some((l) => l.status === 'top' && !others.has(l.at))
}

export function planScript(input: WritingInput): PlannedEdit[] {
  if (!needsScript(input)) return []
  const reason = whyArrivals(input)
  return [
    {
      edit: { kind: 'piece', role: 'script', place: 'head', text: input.runtime(partsOf(input, reason !== null), reason) },
      why: `The script that marks the current item${reason ? `, and corrects arrivals, because ${reason}` : ''}.`,
      for: {},
      layout: null,
    },
  ]
}
