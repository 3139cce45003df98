/** The marks of the page's own headers: on some screens it may have another than on others. */
import { HEADER, MOVES } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import { inScreenOrder } from '../../survey/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planHeader(input: WritingInput): PlannedEdit[] {
  const { header } = input.page
  if (!header || (!header.keep && !needsScript(input))) return []
  const { at, keep, moves } = header
  const why = keep ? 'The page’s header is made to stay in view.' : 'Says which element the page’s header is.'
  return [
    {
      edit: { kind: 'attribute', at, name: HEADER, value: keep ?? '' },
      why,
      for: {},
      layout: `header ${at} ${keep} ${header.off?.join(' ') ?? ''}`,
    },
    ...(moves
      ? [
          {
            edit: { kind: 'attribute' as const, at, name: MOVES, value: `${moves.after}${moves.away ? ' away' : ''}` },
            why: 'What the page’s header does once the page has been scrolled.',
            for: {},
            layout: null,
          },
        ]
      : []),
    ...others(input).map((other): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: HEADER, value: '' },
      why: 'Says which element the page’s header is on other screens.',
      for: {},
      layout: null,
    })),
  ]
}

/** Those that were seen to stay on a screen, beside the one that was chosen. */
function others({ page, surveys }: WritingInput): ElementAt[] {
  const seen = inScreenOrder(Object.values(surveys)).flatMap(({ header }) =>
    header && header.at !== null && /sticky|fixed/.test(header.position) ? header.at : [],
  )
  return [...new Set(seen)].filter((at) => at !== page.header?.at)
}
