/** Menus that are made. */
import { MADE, madeText, MOTION, motionText } from '../../contract/index.ts'
import {
  formOf,
  formWords,
  linkOf,
  lookWords,
  markupOf,
  nestedItems,
  shownWords,
  smallOf,
  type Entry,
  type Nested,
  type PiecePlace,
} from '../../menus/index.ts'
import { labelOf } from '../../naming/index.ts'
import { isMade, sectionOf, wayOf, type MadeMenu, type Section } from '../../site/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'
import { tabOf } from './target.ts'

/** Elements that may have a paragraph as their last child. */
const HOLDS = new Set('article aside blockquote body dd details dialog div fieldset figure footer header li main section td th'.split(' '))

export const planMadeMenus = (input: WritingInput): PlannedEdit[] =>
  input.page.menus
    .filter(isMade)
    .flatMap((menu, i) => (menu.form.kind === 'steps' ? planSteps(input, menu, i + 1, menu.form.text) : plan(input, menu, i + 1)))

function plan(input: WritingInput, menu: MadeMenu, number: number): PlannedEdit {
  const { page } = input
  const form = formOf(menu.form)
  const entries = entriesOf(input, menu)
  const place = form.place(menu.form, {
    header: page.header?.at ?? null,
    scroller: page.scroller ?? null,
    firstSection: page.sections.find((s) => !s.point)?.at ?? null,
  })
  const folds = form.isFolded || smallOf(menu).as === 'folds'
  const text = markupOf(entries, { opens: !!form.opens, folds: folds ? menu.name : null, hasMarks: menu.form.kind === 'marks' })
  const words = wordsOf(input, menu)
  const attributes = {
    'aria-label': menu.name,
    [MADE]: madeText({ number, part: 0, form: menu.form.kind, words }),
    ...motionOf(menu),
  }
  return {
    edit: { kind: 'piece', role: 'menu', place, text, key: String(number), attributes },
    why: `The menu “${menu.name}”.`,
    for: { menu: menu.key },
    layout: `menu ${JSON.stringify([menu.form, menu.shown, menu.look, menu.name, entries.map(labelsOf)])}`,
  }
}

const motionOf = ({ motion }: MadeMenu): Record<string, string> => (motion ? { [MOTION]: motionText(motion) } : {})

const wordsOf = ({ ways }: WritingInput, menu: MadeMenu) => ({
  ...formWords(menu.form),
  ...shownWords(menu, ways.idOf),
  ...lookWords(menu.look ?? {}),
})

const labelsOf = ({ label, off, children }: Entry): unknown[] => [label, off, children.map(labelsOf)]

function entriesOf({ page, reading, ways }: WritingInput, menu: MadeMenu): Entry[] {
  const titles = new Map(page.sections.map((s) => [s.key, s.title]))
  const entryOf = ({ item: { target, label, tooltip, lang, off, motion }, children }: Nested): Entry => {
    const way = wayOf(target, ways)
    const whole = titles.get(sectionOf(target) ?? '')
    const title = tooltip ?? (whole !== undefined && label !== whole && label === labelOf(whole) ? whole : '')
    const said = { ...(title && { title }), ...(lang && { lang }), ...(off && { off }), ...(motion && { motion }) }
    return { href: way.href, label, tab: tabOf(way, reading.baseLeaves), ...said, children: children.map(entryOf) }
  }
  return nestedItems(menu).map(entryOf)
}

/** A link under each section of the menu to the next item's target. */
function planSteps(input: WritingInput, menu: MadeMenu, number: number, text: string): PlannedEdit[] {
  const { page } = input
  const entries = entriesOf(input, { ...menu, items: menu.items.map((item) => ({ ...item, depth: 0 })) })
  const sections = menu.items.filter((i) => i.target.kind !== 'as-is' && i.target.kind !== 'group').map((i) => sectionOf(i.target))
  let part = 0
  return entries.slice(1).flatMap((entry, n): PlannedEdit[] => {
    const section = page.sections.find((s) => s.key === sections[n])
    const place = section && endOf(section, input)
    if (!section || !place) return []
    const words = { ...wordsOf(input, menu), name: menu.name, of: section.id }
    const made = madeText({ number, part: ++part, form: menu.form.kind, words })
    const link = linkOf(text ? { ...entry, label: text, says: `${text}: ${entry.label}` } : entry)
    return [
      {
        edit: { kind: 'piece', role: 'step', place, text: link, key: `${number}.${part}`, attributes: { [MADE]: made, ...motionOf(menu) } },
        why: `The link under “${section.title}” to “${entry.label}”.`,
        for: { menu: menu.key },
        layout: `step ${JSON.stringify([menu.form, menu.shown, menu.look, section.at, entry.label])}`,
      },
    ]
  })
}

/** The place under a section: its end, or before the next section for a bare heading. */
function endOf(section: Section, { page, reading }: WritingInput): PiecePlace | null {
  const tag = section.point ? undefined : reading.candidates.find((c) => c.at === section.at)?.tag
  if (tag !== undefined && HOLDS.has(tag)) return { into: section.at, last: true }
  const next = page.sections[page.sections.indexOf(section) + 1]
  return next ? { before: next.at } : null
}
