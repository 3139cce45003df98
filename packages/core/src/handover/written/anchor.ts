/** Targets that the page has no element for, and the marks of the elements that they stand before. */
import { ANCHOR } from '../../contract/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../input.ts'

export const planAnchorElements = ({ anchors }: WritingInput): PlannedEdit[] =>
  [...new Map(anchors.map((a) => [a.at, a])).values()].map(({ at, number, section }) => ({
    edit: { kind: 'attribute', at, name: ANCHOR, value: String(number) },
    why: `Where links to “${section.title}” arrive that find no element of their own.`,
    for: { section: section.key },
    layout: null,
  }))

export const planAnchors = ({ anchors }: WritingInput): PlannedEdit[] =>
  anchors.map(({ id, section, isFormer }) => ({
    edit: { kind: 'piece', role: 'anchor', place: 'head', text: '', id },
    why: isFormer ? `Links to the former ID “${id}” of “${section.title}” still arrive.` : `The point “${section.title}”.`,
    for: { section: section.key },
    layout: null,
  }))
