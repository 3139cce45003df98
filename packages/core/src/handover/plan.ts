/** The plan of a handover: every edit with its reason. `written/` has a file for each thing that is written. */
import type { PageEdit, PlannedEdit } from './edit.ts'
import type { HandoverInput } from './input.ts'
import { writingInput, type WritingInput } from './writing.ts'
import { planAnchorElements, planAnchors } from './written/anchor.ts'
import { planBuiltMenus } from './written/built-menu.ts'
import { planEstimates } from './written/estimate.ts'
import { planFoundMenus } from './written/found-menu.ts'
import { planHeader } from './written/header.ts'
import { planIds } from './written/id.ts'
import { planLinks } from './written/link.ts'
import { planMadeMenus } from './written/made-menu.ts'
import { planMarks } from './written/marked.ts'
import { planPictures } from './written/picture.ts'
import { planReferences } from './written/reference.ts'
import { planScript } from './written/script.ts'
import { planSettings } from './written/settings.ts'
import { planSkip } from './written/skip.ts'
import { planStyle } from './written/style.ts'

/** The order of the pieces in the head. */
const writers: ((input: WritingInput) => PlannedEdit[])[] = [
  planIds,
  planFoundMenus,
  planBuiltMenus,
  planLinks,
  planReferences,
  planHeader,
  planMarks,
  planPictures,
  planEstimates,
  planStyle,
  planSettings,
  planScript,
  planAnchorElements,
  planAnchors,
  // Before a menu at the body's start.
  planSkip,
  planMadeMenus,
]

export function handoverPlan(input: HandoverInput): PlannedEdit[] {
  const all = writingInput(input)
  return writers.flatMap((plan) => plan(all))
}

export const pageEdits = (input: HandoverInput): PageEdit[] => handoverPlan(input).map((p) => p.edit)

/** Everything in the work that affects layout; surveys stay valid while it's the same. */
export const layoutOf = (input: Omit<HandoverInput, 'surveys' | 'runtime' | 'named'>): string =>
  handoverPlan({ ...input, surveys: {}, runtime: () => '', named: [] })
    .flatMap((p) => p.layout ?? [])
    .join('\n')
