/** Settings for the script. */
import { coverOfBar, isOwnTravel, partsByAt, standsAbove } from '../../arrival/index.ts'
import { motionText, type Settings } from '../../contract/index.ts'
import type { Section, SitePage } from '../../site/index.ts'
import { builtOf, inScreenOrder, type Survey } from '../../survey/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export const planSettings = (input: WritingInput): PlannedEdit[] =>
  !needsScript(input)
    ? []
    : [
        {
          edit: { kind: 'piece', role: 'settings', place: 'head', text: settingsText(input) },
          why: 'Data for the script: sections, former IDs, offsets.',
          for: {},
          layout: null,
        },
      ]

/** Targets that scripts build are marked like sections. */
function builtIds(page: SitePage, surveys: Readonly<Record<string, Survey>>): string[] {
  const own = new Set(page.sections.flatMap((s) => [s.id, ...s.former]))
  return builtOf(inScreenOrder(Object.values(surveys))).targets.flatMap(({ id }) => (own.has(id) ? [] : [id]))
}

/** IDs of sections that start elsewhere than their targets. */
export function shiftedIds({ page, surveys, anchors }: WritingInput): string[] {
  const parts = Object.values(surveys).map(partsByAt)
  const isShifted = (section: Section) => parts.some((of) => of.has(section.at) && standsAbove(section, of.get(section.at)!))
  const isHosted = new Set(anchors.filter((a) => a.host !== null && !a.isFormer).map((a) => a.section))
  return page.sections
    .filter((s) => !s.toTop && (s.point ? isHosted.has(s) && s.point.shift !== 0 : !isOwnTravel(page) && isShifted(s)))
    .map((s) => s.id)
}

function settingsText(input: WritingInput): string {
  const { page, surveys, anchors } = input
  const shifted = shiftedIds(input)
  const isTimed = page.travel.smooth && page.travel.timed
  const adjusted = page.sections.flatMap(({ id, adjust }) => (adjust ? [{ id, ...adjust }] : []))
  const holder = page.sections.find((s) => s.key === page.endSpace?.section)
  const settings: Settings = {
    sections: [...page.sections.map((s) => s.id), ...builtIds(page, surveys)],
    toTop: page.sections.filter((s) => s.toTop).map((s) => s.id),
    breathing: page.travel.breathing,
    ...(page.travel.breathes ? { breathes: page.travel.breathes } : {}),
    bellOffset: page.highlight.bellOffset,
    smooth: page.travel.smooth,
    ...(isTimed ? { timed: motionText(page.travel.timed!) } : {}),
    ...(page.travel.address ? { address: page.travel.address } : {}),
    ...(page.travel.follows ? { follows: true } : {}),
    ...(page.travel.takesPresses ? { takesPresses: true } : {}),
    ...(page.travel.estimates ? { estimates: true } : {}),
    keep: page.header?.keep != null,
    ...(page.header?.off ? { headerOff: page.header.off } : {}),
    ...(page.header?.steady ? { headerSteady: true } : {}),
    ...(page.header?.under ? { headerUnder: page.header.under } : {}),
    ...(page.header?.onScroll ? { headerOnScroll: page.header.onScroll } : {}),
    former: anchors.filter((a) => a.isFormer).map((a) => ({ was: a.id, now: a.section.id })),
    points: anchors
      .filter((a) => !a.isFormer)
      .map((a) => ({ id: a.id, below: a.section.point!.shift, ...(a.placed ? { anchor: a.placed.number } : {}) })),
    ...(adjusted.length ? { adjust: adjusted } : {}),
    ...(page.endSpace && holder ? { endSpace: { id: holder.id, as: page.endSpace.as, on: page.endSpace.on } } : {}),
    ...(page.travel.pageOffsets ? { ownTravel: true } : {}),
    ...(page.highlight.pageMark ? { ownMarks: true } : {}),
    ...(shifted.length ? { shifted } : {}),
    bar: coverOfBar(page, null),
  }
  // `</script` and `<!--` would break the element.
  return `\n${JSON.stringify(settings, null, 2).replace(/</g, '\\u003c')}\n`
}
