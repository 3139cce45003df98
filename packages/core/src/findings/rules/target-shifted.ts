/** Empty targets that the page moves up by its header, which offsets make needless. */
import { isOwnTravel } from '../../arrival/index.ts'
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'travel',
  inSite: ({ page, reading, surveys, named, placeOf }) => {
    if (isOwnTravel(page)) return []
    const blocks = new Map(reading.candidates.flatMap((c) => (c.block === null ? [] : [[c.at, c.block] as const])))
    const shifts = new Map<number, number>()
    for (const { parts } of Object.values(surveys))
      for (const { at, shift } of parts) if (shift && blocks.has(at)) shifts.set(at, Math.max(shift, shifts.get(at) ?? 0))
    // Styles of the ID move with it.
    const those = page.sections.filter((s) => !s.point && s.block === undefined && shifts.has(s.at) && !named.styles.includes(s.id))
    if (!those.length) return []
    const most = Math.round(Math.max(...those.map((s) => shifts.get(s.at)!)))
    const some = those.length === 1 ? '1 target is an empty element' : `${those.length} targets are empty elements`
    return [
      {
        message: `${some} placed up to ${most} px above the content to clear the header. The offset does that now. Remove ${those.length === 1 ? 'it' : 'them'}.`,
        ...placeOf(those[0]!.at),
        where: { at: those[0]!.at, section: those[0]!.key },
        fix: {
          label: those.length === 1 ? 'Remove the shifted target' : `Remove the ${those.length} shifted targets`,
          command: {
            type: 'batch',
            label: 'Remove shifted targets',
            commands: those.map((s) => ({ type: 'section/block', page: page.key, section: s.key, block: blocks.get(s.at) })),
          },
        },
      },
    ]
  },
}
