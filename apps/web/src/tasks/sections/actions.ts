/** Commands of Sections by name. */
import { mergeWithNext, nestSection } from '@waybell/core'
import type { Action } from '../../work/action.ts'
import type { Measured, View, Work } from '../../work/context.ts'
import { removeSections } from './Removing.tsx'
import { addPoint, setUpAllPages, untouched } from './steps.ts'

/** Presses the view's own button, so that there is one way to do it. */
const press = (name: string) => () =>
  [...document.querySelectorAll<HTMLButtonElement>('main button')]
    .find((b) => (b.getAttribute('aria-label') ?? b.textContent?.trim()) === name)
    ?.click()

export function sectionsActions(work: Work, measured: Measured, { live, current }: View): Action[] {
  const { site, page, run } = work
  const actions: Action[] = [{ name: 'Pick an element on the page', run: () => live.pick(true) }]
  const left = untouched(work).length
  if (left)
    actions.push({
      name: left === 1 ? 'Set up the other page' : `Set up the other ${left} pages`,
      run: () => void setUpAllPages(work, measured),
    })
  if (!page.sections.length) return actions
  for (const [name, button] of [
    ['Change the naming rule', 'Naming rule'],
    ['Paste a column', 'Paste a column'],
    ['Copy the sections as a table', 'Copy as a table'],
    ['Bring in a new version of the page', 'Bring in a new version'],
  ] as const)
    actions.push({ name, run: press(button) })
  actions.push({ name: 'Find a section', run: () => document.querySelector<HTMLInputElement>('[aria-label="Find a section"]')?.focus() })
  const section = page.sections.find((s) => s.key === current)
  if (!section) return actions
  const of = `“${section.title}”`
  const field = (kind: string) => () =>
    document.querySelector<HTMLInputElement>(`[data-section-row="${CSS.escape(section.key)}"] [data-field="${kind}"] input`)?.select()
  const [nest, lift, merge] = [nestSection(page, section, 1), nestSection(page, section, -1), mergeWithNext(site, page, section)]
  actions.push(
    { name: `Rename the ID of ${of}`, keys: 'F2', run: field('id') },
    { name: `Change the title of ${of}`, keys: 'Enter', run: field('title') },
  )
  if (nest) actions.push({ name: `Nest ${of}`, keys: 'Alt+Right', run: () => run(nest) })
  if (lift) actions.push({ name: `Lift ${of}`, keys: 'Alt+Left', run: () => run(lift) })
  if (merge) actions.push({ name: `Merge ${of} with the next section`, run: () => run(merge) })
  if (!section.point) actions.push({ name: `Put a point before ${of}`, run: () => addPoint(work, section) })
  actions.push({ name: `Remove ${of}`, keys: 'Delete', run: () => removeSections(work, [section]) })
  return actions
}
