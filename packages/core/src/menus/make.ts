/** Makes menus. */
import { labelOf } from '../naming/index.ts'
import { decodeFragment, fragmentOf, readMade } from '../contract/index.ts'
import type { PageReading, WrittenItem } from '../page/index.ts'
import { depthsOf, freshKey, type Item, type ItemTarget, type MadeMenu, type MadeMenuForm, type Menu, type Section } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { freshForm, readForm } from './form-of.ts'
import { readLook } from './look.ts'
import { readShown } from './shown.ts'

/** Which sections a menu of all sections shows. */
export interface OfSections {
  /** Deepest level, from 1. */
  levels: number
}

/** A menu with one item per section, in page order. */
export function makeMenu(
  { sections, menus }: { sections: readonly Section[]; menus: readonly Menu[] },
  form: MadeMenuForm,
  { levels }: OfSections = { levels: 1 },
): MadeMenu {
  const key = freshKey(
    'm',
    menus.map((m) => m.key),
  )
  const depths = depthsOf(sections)
  const items = sections.flatMap((s, n): Item[] => {
    const depth = depths[n]!
    return depth < levels ? [{ ...itemFor(`${key}-${n}`, s), ...(depth && { depth }) }] : []
  })
  return { key, name: freshName('Sections', menus), form, items }
}

export const itemFor = (key: string, section: Section): Item => ({
  key,
  label: labelOf(section.title),
  target: { kind: 'section', section: section.key },
  links: [],
})

/** A menu name that isn't taken. */
export function freshName(name: string, menus: readonly Menu[]): string {
  const taken = new Set(menus.map((m) => m.name))
  for (let n = 1; ; n++) {
    const fresh = n === 1 ? name : `${name} ${n}`
    if (!taken.has(fresh)) return fresh
  }
}

/** The bar for a page without menus. */
export function makeBar(sections: readonly Section[], surveys: readonly Survey[]): MadeMenu {
  const menu = makeMenu({ sections, menus: [] }, newForm('bar', sections, surveys), { levels: Infinity })
  // A row shows all items.
  return { ...menu, items: menu.items.map((item) => without(item, 'depth')) }
}

function without<T, K extends keyof T>(of: T, name: K): Omit<T, K> {
  const rest = { ...of }
  delete rest[name]
  return rest
}

/** Menus that an earlier handover made. */
export function madeBefore(
  reading: PageReading,
  sections: readonly Section[],
  surveys: readonly Survey[],
  menus: readonly Menu[],
): MadeMenu[] {
  const byId = new Map(sections.map((s) => [s.id, s]))
  const out: MadeMenu[] = []
  for (const { name, made, motion, items } of reading.written.menus) {
    const key = freshKey(
      'm',
      [...menus, ...out].map((m) => m.key),
    )
    const said = made === null ? null : readMade(made)
    const form = (said && readForm(said)) ?? { kind: 'bar', place: placeBar(sections, surveys) }
    const shown = said && readShown(said.words, byId)
    const look = said && readLook(said.words)
    out.push({
      key,
      name,
      form,
      ...(shown && { shown }),
      ...(look && { look }),
      ...(motion && { motion }),
      items: items.flatMap((item, n) => itemOf(item, `${key}-${n}`, byId)),
    })
  }
  return out
}

function itemOf({ link, label, title, lang, motion, depth, off }: WrittenItem, key: string, byId: ReadonlyMap<string, Section>): Item[] {
  const target: ItemTarget | null = link ? targetOfWritten(link, byId) : { kind: 'group' }
  if (!target) return []
  const whole = target.kind === 'section' ? [...byId.values()].find((s) => s.key === target.section)!.title : ''
  // The `title` of a shortened label isn't the designer's tooltip.
  const said = {
    ...(title && title !== whole && { tooltip: title }),
    ...(lang && { lang }),
    ...(motion && { motion }),
    ...(depth && { depth }),
    ...(off.length && { off }),
  }
  // For links under sections, the first item isn't written.
  return [{ key, label: label || labelOf(whole), target, links: [], ...said }]
}

/** Links to other pages were relative to the old site; here they're addresses. */
function targetOfWritten({ href, isNewTab }: NonNullable<WrittenItem['link']>, byId: ReadonlyMap<string, Section>): ItemTarget | null {
  if (!href.startsWith('#')) return { kind: 'outside', address: href, newTab: isNewTab }
  const section = byId.get(decodeFragment(fragmentOf(href)))
  return section ? { kind: 'section', section: section.key } : href === '#' ? { kind: 'top' } : null
}

/** After a sticky header, over the page below a fixed one, else at the page's top. */
function placeBar(sections: readonly Section[], surveys: readonly Survey[]): Extract<MadeMenuForm, { kind: 'bar' }>['place'] {
  const headers = surveys.flatMap((s) => (s.header ? [{ survey: s, header: s.header }] : []))
  if (headers.some(({ header }) => header.position === 'sticky')) return 'after-header'
  const lies = headers.some(({ survey, header }) => {
    const top = survey.parts.find((p) => p.at === sections[0]?.at)?.top ?? 0
    return header.position === 'fixed' && top < header.rest - 1
  })
  return lies ? 'under-fixed' : 'top'
}

/** A new menu's form of a kind; a bar goes where there is space. */
export const newForm = (kind: MadeMenuForm['kind'], sections: readonly Section[], surveys: readonly Survey[]): MadeMenuForm =>
  kind === 'bar' ? { kind, place: placeBar(sections, surveys) } : freshForm(kind)
