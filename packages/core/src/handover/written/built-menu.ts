/** Menus built by scripts: their element is marked, so that the script marks the current item. */
import { markText, MENU } from '../../contract/index.ts'
import { builtMenusOf } from '../../menus/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export const planBuiltMenus = ({ page, surveys }: WritingInput): PlannedEdit[] =>
  page.highlight.pageMark || !page.sections.length
    ? []
    : builtMenusOf(page, Object.values(surveys)).map(({ at, mark }) => ({
        edit: { kind: 'attribute', at, name: MENU, value: markText(mark) },
        why: 'Marks where a page script builds a menu.',
        for: {},
        layout: null,
      }))
