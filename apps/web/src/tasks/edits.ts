/** Edits that take several commands, each as one step of undo. */
import { checkId, proposeSetUp, sectionFrom, takenIds, type Candidate, type Command, type Section } from '@waybell/core'
import { freshKey, type Work } from '../workspace/work.ts'

/** A dropped section's items go with it. */
export function dropSection({ page, run }: Work, section: Section): void {
  const commands: Command[] = page.menus.flatMap((menu) =>
    menu.items
      .filter((i) => i.target.kind === 'section' && i.target.section === section.key)
      .map((i): Command =>
        // The page's own link stays where it is and goes where it went before.
        i.link === null ? { type: 'item/drop', page: page.key, menu: menu.key, item: i.key } : { type: 'item/target', page: page.key, menu: menu.key, item: i.key, target: { kind: 'as-is' } },
      ),
  )
  run({ type: 'batch', label: 'Drop a section', commands: [...commands, { type: 'section/drop', page: page.key, section: section.key }] })
}

/** An added section gets an ID, and an item in the made menu, in page order. */
export function addSection({ page, reading, site, run }: Work, candidate: Candidate): void {
  const taken = takenIds(reading)
  for (const s of page.sections) taken.add(s.id.toLowerCase())
  const section = sectionFrom(candidate, taken, site.rule)
  const commands: Command[] = [{ type: 'section/add', page: page.key, section }]
  const made = page.menus.find((m) => m.at === null)
  if (made) {
    const place = new Map(page.sections.map((s) => [s.key, s.at]))
    const after = made.items.findLastIndex((i) => i.target.kind === 'section' && place.get(i.target.section)! < section.at)
    commands.push({
      type: 'item/add',
      page: page.key,
      menu: made.key,
      index: after + 1,
      item: { key: freshKey(`${made.key}-`, made.items.map((i) => i.key)), label: section.title, target: { kind: 'section', section: section.key }, link: null },
    })
  }
  run({ type: 'batch', label: 'Add a section', commands })
}

/** The one press. */
export function setUpEverything({ page, reading, site, surveys, run }: Work): void {
  run({ type: 'page/set-up', page: page.key, setUp: proposeSetUp(reading, Object.values(surveys), site.rule) })
}

/** What is wrong with an ID as it is typed, or null. The page's own IDs are left alone. */
export function idProblem({ page, reading }: Work, section: Section, id: string): string | null {
  const own = reading.candidates.find((c) => c.at === section.at)?.id
  const others = new Set([...reading.ids.filter((i) => i.at !== section.at).map((i) => i.id), ...page.sections.filter((s) => s !== section).map((s) => s.id)])
  // A later element that shares the ID it was given up for is no clash.
  if (id === own && !page.sections.some((s) => s !== section && s.id === id)) return checkId(id, new Set())?.message ?? null
  return checkId(id, others)?.message ?? null
}
