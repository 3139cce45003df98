/** The marks of the page's own headers: on some screens it may have another than on others. */
import { smallerBy } from '../../arrival/index.ts'
import { GIVES, HEADER, MOVES, STEADY } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import { inScreenOrder, type Survey } from '../../survey/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { firstSection, type HeaderMoves, type SitePage } from '../../site/index.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planHeader(input: WritingInput): PlannedEdit[] {
  const { header } = input.page
  if (!header || (!header.keep && !header.under && !needsScript(input))) return []
  const { at, keep, moves } = header
  const why = keep ? 'The page’s header is made to stay in view.' : 'Says which element the page’s header is.'
  return [
    {
      edit: { kind: 'attribute', at, name: HEADER, value: keep ?? '' },
      why,
      for: {},
      layout: `header ${at} ${keep} ${header.off?.join(' ') ?? ''}${header.steady ? ' steady' : ''}${header.under ? ` under ${firstSection(input.page)?.at} ${JSON.stringify(header.under)}` : ''}`,
    },
    ...(moves
      ? [
          {
            edit: { kind: 'attribute' as const, at, name: MOVES, value: `${movesText(input.page, moves)}${moves.away ? ' away' : ''}` },
            why: 'What the page’s header does once the page has been scrolled.',
            for: {},
            layout: null,
          },
        ]
      : []),
    ...givingElements(input.page, input.surveys).map((other, i): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: GIVES, value: String(i + 1) },
      why: 'Says what in the page’s header gives up padding once the page has been scrolled.',
      for: {},
      layout: null,
    })),
    ...(header.steady ? steadyElements(input) : []).map((other): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: STEADY, value: '' },
      why: 'Says which header keeps its place while it is smaller than at rest.',
      for: {},
      layout: null,
    })),
    ...others(input).map((other): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: HEADER, value: '' },
      why: 'Says what else stays in view at the page’s top, on one screen or another.',
      for: {},
      layout: null,
    })),
  ]
}

/** An ID that white space stands in cannot be said there, and is said as in an address. */
function movesText(page: SitePage, { after, over }: HeaderMoves): string {
  const first = over && firstSection(page)
  return first ? `#${encodeURIComponent(first.id)}` : String(after)
}

/** What in the header gives up padding, on one screen or another, where that is not the header itself. */
export const givingElements = (page: SitePage, surveys: Readonly<Record<string, Survey>>): ElementAt[] => [
  ...new Set(
    inScreenOrder(Object.values(surveys)).flatMap((s) =>
      smallerBy(page, s) && s.header!.gives!.at !== page.header!.at ? s.header!.gives!.at : [],
    ),
  ),
]

/** Those that are smaller by themselves, on one screen or another, once the page has moved. */
const steadyElements = ({ surveys }: WritingInput): ElementAt[] => [
  ...new Set(inScreenOrder(Object.values(surveys)).flatMap(({ header }) => (header?.makesUp && header.at !== null ? header.at : []))),
]

/** Those that were seen to stay on a screen, beside the one that was chosen: all of them cover what links lead to. */
function others({ page, surveys }: WritingInput): ElementAt[] {
  const seen = inScreenOrder(Object.values(surveys)).flatMap(({ header }) =>
    header && /sticky|fixed/.test(header.position) ? [...(header.at === null ? [] : [header.at]), ...header.others] : [],
  )
  return [...new Set(seen)].filter((at) => at !== page.header?.at)
}
