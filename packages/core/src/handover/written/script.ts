/** The script, with the parts that the page needs: it marks the current item and corrects offsets. */
import type { PlannedEdit } from '../edit.ts'
import { builtMenusOf, formOf, isLate, smallOf } from '../../menus/index.ts'
import { isFound, isMade, type FoundForm, type MadeMenu } from '../../site/index.ts'
import { mayChange } from '../growth.ts'
import { SCRIPT_PARTS, type ScriptPart } from '../input.ts'
import { needsScript, travelsOtherwise, type WritingInput } from '../writing.ts'

function partsOf(input: WritingInput): ScriptPart[] {
  const { page, reading, anchors, surveys } = input
  const built = builtMenusOf(page, Object.values(surveys))
  const found = page.menus.filter(isFound)
  const marks = [...found.map((m) => (m.form as FoundForm).mark), ...built.map((m) => m.mark)]
  const elements = new Set(found.flatMap((m) => (m.form as FoundForm).elements))
  const sticky = Object.values(surveys).some((s) => s.parts.some((p) => p.sticks))
  const has: Record<ScriptPart, boolean> = {
    sticky,
    anchors: sticky || anchors.some((a) => a.isFormer || a.placed),
    classes: sticky || marks.some((mark) => typeof mark === 'object'),
    header: sticky || page.header !== null || mayChange(input),
    moves: !!page.header?.onScroll,
    presses: !!page.travel.takesPresses,
    shuts: found.some((m) => (m.form as FoundForm).shutBy !== undefined),
    made: sticky || page.menus.some((m) => isMade(m) && changesItself(m)),
    lists:
      sticky ||
      built.length > 0 ||
      page.menus.some((m) => isMade(m) && m.items.some((i) => i.depth)) ||
      reading.menus.some((m) => elements.has(m.at) && m.opens),
    scripts: sticky || reading.hasScripts,
    scroller: sticky || page.scroller !== undefined,
    shrinks: mayChange(input),
    steady: !!page.header?.steady,
    travel: travelsOtherwise(page),
  }
  return SCRIPT_PARTS.filter((part) => has[part])
}

/** Visibility or opening that the style alone can't do. */
const changesItself = (menu: MadeMenu): boolean => {
  const { until, holds } = menu.shown ?? {}
  const form = formOf(menu.form)
  const opens = form.isFolded || smallOf(menu).as === 'folds' || (form.opens && menu.items.some((i) => i.depth))
  return !!opens || !!holds || isLate(menu) || until !== undefined
}

export const planScript = (input: WritingInput): PlannedEdit[] =>
  !needsScript(input)
    ? []
    : [
        {
          edit: { kind: 'piece', role: 'script', place: 'head', text: input.runtime(partsOf(input)) },
          why: 'The script that marks the current item.',
          for: {},
          layout: null,
        },
      ]
