/** The menu that is made. */
import { formOf, type Link } from '../../menus/index.ts'
import { hrefOf, madeMenu } from '../../site/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../input.ts'

export function planMadeMenu({ page, idOf }: WritingInput): PlannedEdit[] {
  const made = madeMenu(page)
  if (!made) return []
  const form = formOf(made.form)
  const links = made.items.flatMap(({ target, label }): Link[] => {
    const href = hrefOf(target, idOf)
    return href === null ? [] : [{ href, label }]
  })
  const place = form.place(made.form, page.header?.at ?? null)
  return [
    {
      edit: { kind: 'piece', role: 'menu', place, text: form.markup(links) },
      why: `The menu “${made.name}”.`,
      for: { menu: made.key },
      layout: `menu ${JSON.stringify([made.form, links.map((l) => l.label)])}`,
    },
  ]
}
