/** Late parts whose height differs from the estimate in the page. */
import { wrongEstimates } from '../../survey/index.ts'
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  inSite: ({ page, surveys, placeOf }) => {
    const wrong = wrongEstimates(Object.values(surveys))
    if (page.travel.estimates || !wrong.length) return []
    const some = wrong.length === 1 ? '1 part' : `${wrong.length} parts`
    return [
      {
        message: `${some} of the page ${wrong.length === 1 ? 'has' : 'have'} a wrong height until scrolled near. Links past ${wrong.length === 1 ? 'it' : 'them'} may stop far from their targets.`,
        ...placeOf(wrong[0]!),
        where: { at: wrong[0]! },
        fix: {
          label: `Set the height${wrong.length === 1 ? '' : 's'} of ${some}`,
          command: { type: 'travel/estimates', page: page.key, says: true },
        },
      },
    ]
  },
}
