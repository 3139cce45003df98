/** The menu that is made. */
import { formOf, type Link } from '../../menus/index.ts'
import { labelOf } from '../../naming/index.ts'
import { madeMenu, sectionOf, wayOf } from '../../site/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export function planMadeMenu({ page, ways }: WritingInput): PlannedEdit[] {
  const made = madeMenu(page)
  if (!made) return []
  const form = formOf(made.form)
  const links = made.items.flatMap(({ target, label, tooltip, lang }): Link[] => {
    const { href, isNewTab } = wayOf(target, ways)
    const section = page.sections.find((s) => s.key === sectionOf(target))
    const isShort = section && label !== section.title && label === labelOf(section.title)
    const title = tooltip ?? (isShort ? section.title : '')
    return href === null ? [] : [{ href, label, isNewTab, ...(title && { title }), ...(lang && { lang }) }]
  })
  const place = form.place(made.form, { header: page.header?.at ?? null, scroller: page.scroller ?? null })
  return [
    {
      edit: { kind: 'piece', role: 'menu', place, text: form.markup(links) },
      why: `The menu “${made.name}”.`,
      for: { menu: made.key },
      layout: `menu ${JSON.stringify([made.form, links.map((l) => l.label)])}`,
    },
  ]
}
