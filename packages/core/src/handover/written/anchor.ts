/** Targets other than sections' own elements: IDs on elements without one, or elements in the head with their marks. */
import { ANCHOR } from '../../contract/index.ts'
import { hostedIds } from '../../page/index.ts'
import type { Anchor } from '../anchors.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

const whyOf = ({ id, section, isFormer }: Anchor): string =>
  isFormer ? `Links to the former ID “${id}” of “${section.title}” still arrive.` : `The point “${section.title}”.`

/** On elements of the page. Removes earlier ones that are no longer wanted. */
export function planAnchorElements(input: WritingInput): PlannedEdit[] {
  const { anchors, ownId } = input
  const hosted = new Map(anchors.flatMap((a) => (a.host === null ? [] : [[a.host, a] as const])))
  const placed = new Map(anchors.flatMap((a) => (a.placed ? [[a.placed.at, a] as const] : [])))
  const left = [...hostedIds(input.reading)].filter(([id, at]) => hosted.get(at)?.id !== id)
  const sections = new Set(input.page.sections.filter((s) => !s.point).map((s) => s.at))
  return [
    ...left.flatMap(([id, at]): PlannedEdit[] =>
      hosted.has(at) || sections.has(at)
        ? []
        : [{ edit: { kind: 'attribute', at, name: 'id', value: null }, why: `The ID “${id}” is removed.`, for: {}, layout: null }],
    ),
    ...[...hosted].flatMap(([at, anchor]): PlannedEdit[] =>
      ownId.get(at) === anchor.id
        ? []
        : [
            {
              edit: { kind: 'attribute', at, name: 'id', value: anchor.id },
              why: whyOf(anchor),
              for: { section: anchor.section.key },
              layout: null,
            },
          ],
    ),
    ...[...placed].map(([at, { placed, section }]): PlannedEdit => ({
      edit: { kind: 'attribute', at, name: ANCHOR, value: String(placed!.number) },
      why: `Where links to “${section.title}” arrive whose element is gone.`,
      for: { section: section.key },
      layout: null,
    })),
  ]
}

export const planAnchors = ({ anchors }: WritingInput): PlannedEdit[] =>
  anchors
    .filter((a) => a.placed)
    .map((a) => ({
      edit: { kind: 'piece', role: 'anchor', place: 'head', text: '', key: a.id, attributes: { id: a.id } },
      why: whyOf(a),
      for: { section: a.section.key },
      layout: null,
    }))
