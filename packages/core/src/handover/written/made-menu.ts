/** Menus that are made. */
import { MADE, madeText } from '../../contract/index.ts'
import { formOf, formWords, markupOf, nestedItems, shownWords, smallOf, type Entry, type Nested } from '../../menus/index.ts'
import { labelOf } from '../../naming/index.ts'
import { isMade, sectionOf, wayOf, type MadeMenu } from '../../site/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export const planMadeMenus = (input: WritingInput): PlannedEdit[] =>
  input.page.menus.filter(isMade).map((menu, i) => plan(input, menu, i + 1))

function plan(input: WritingInput, menu: MadeMenu, number: number): PlannedEdit {
  const { page, ways } = input
  const form = formOf(menu.form)
  const entries = entriesOf(input, menu)
  const place = form.place(menu.form, {
    header: page.header?.at ?? null,
    scroller: page.scroller ?? null,
    firstSection: page.sections.find((s) => !s.point)?.at ?? null,
  })
  const folds = form.isFolded || smallOf(menu).as === 'folds'
  const text = markupOf(entries, { opens: !!form.opens, folds: folds ? menu.name : null, hasMarks: menu.form.kind === 'marks' })
  const words = { ...formWords(menu.form), ...shownWords(menu, ways.idOf) }
  const attributes = { 'aria-label': menu.name, [MADE]: madeText({ number, form: menu.form.kind, words }) }
  return {
    edit: { kind: 'piece', role: 'menu', place, text, key: String(number), attributes },
    why: `The menu “${menu.name}”.`,
    for: { menu: menu.key },
    layout: `menu ${JSON.stringify([menu.form, menu.shown, menu.name, entries.map(labelsOf)])}`,
  }
}

const labelsOf = ({ label, off, children }: Entry): unknown[] => [label, off, children.map(labelsOf)]

function entriesOf({ page, ways }: WritingInput, menu: MadeMenu): Entry[] {
  const titles = new Map(page.sections.map((s) => [s.key, s.title]))
  const entryOf = ({ item: { target, label, tooltip, lang, off }, children }: Nested): Entry => {
    const { href, isNewTab } = wayOf(target, ways)
    const whole = titles.get(sectionOf(target) ?? '')
    const title = tooltip ?? (whole !== undefined && label !== whole && label === labelOf(whole) ? whole : '')
    const said = { ...(title && { title }), ...(lang && { lang }), ...(off && { off }) }
    return { href, label, isNewTab, ...said, children: children.map(entryOf) }
  }
  return nestedItems(menu).map(entryOf)
}
