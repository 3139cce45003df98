/** Marks of the page's headers: screens may have different ones. */
import { smallerBy } from '../../arrival/index.ts'
import { GIVES, HEADER, MOVES, STEADY } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import { inScreenOrder, type Survey } from '../../survey/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { firstSection, type HeaderOnScroll, type SitePage } from '../../site/index.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planHeader(input: WritingInput): PlannedEdit[] {
  const { header } = input.page
  if (!header || (!header.keep && !header.under && !needsScript(input))) return []
  const { at, keep, onScroll } = header
  const why = keep ? 'Keeps the page’s header in view.' : 'Says which element the page’s header is.'
  return [
    {
      edit: { kind: 'attribute', at, name: HEADER, value: keep ?? '' },
      why,
      for: {},
      layout: `header ${at} ${keep} ${header.off?.join(' ') ?? ''}${header.steady ? ' steady' : ''}${header.under ? ` under ${firstSection(input.page)?.at} ${JSON.stringify(header.under)}` : ''}`,
    },
    ...(onScroll
      ? [
          {
            edit: {
              kind: 'attribute' as const,
              at,
              name: MOVES,
              value: `${movesText(input.page, onScroll)}${onScroll.away ? ' away' : ''}`,
            },
            why: 'What the header does after scrolling.',
            for: {},
            layout: null,
          },
        ]
      : []),
    ...givingElements(input.page, input.surveys).map((other, i): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: GIVES, value: String(i + 1) },
      why: 'The part of the header that loses padding after scrolling.',
      for: {},
      layout: null,
    })),
    ...(header.steady ? steadyElements(input) : []).map((other): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: STEADY, value: '' },
      why: 'The header that keeps its place while it shrinks.',
      for: {},
      layout: null,
    })),
    ...others(input).map((other): PlannedEdit => ({
      edit: { kind: 'attribute', at: other, name: HEADER, value: '' },
      why: 'Also stays in view at the top on some screens.',
      for: {},
      layout: null,
    })),
  ]
}

/** An ID with white space is percent-encoded. */
function movesText(page: SitePage, { after, over }: HeaderOnScroll): string {
  const first = over && firstSection(page)
  return first ? `#${encodeURIComponent(first.id)}` : String(after)
}

/** Elements in the header whose padding shrinks, on any screen. */
export const givingElements = (page: SitePage, surveys: Readonly<Record<string, Survey>>): ElementAt[] => [
  ...new Set(
    inScreenOrder(Object.values(surveys)).flatMap((s) =>
      smallerBy(page, s) && s.header!.gives!.at !== page.header!.at ? s.header!.gives!.at : [],
    ),
  ),
]

/** Elements that shrink by themselves on any screen. */
const steadyElements = ({ surveys }: WritingInput): ElementAt[] => [
  ...new Set(inScreenOrder(Object.values(surveys)).flatMap(({ header }) => (header?.makesUp && header.at !== null ? header.at : []))),
]

/** Other headers seen to stay on a screen: all of them cover targets. */
function others({ page, surveys }: WritingInput): ElementAt[] {
  const seen = inScreenOrder(Object.values(surveys)).flatMap(({ header }) =>
    header && /sticky|fixed/.test(header.position) ? [...(header.at === null ? [] : [header.at]), ...header.others] : [],
  )
  return [...new Set(seen)].filter((at) => at !== page.header?.at)
}
