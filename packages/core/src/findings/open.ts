/** Findings that are open while a site is worked on: those of the page that the work has not settled, and those of the work itself. */
import type { Survey } from '../arrival/index.ts'
import { soundId } from '../naming/index.ts'
import { decodeFragment, type ElementAt, type NamedIds, type PageReading, type Place } from '../page/index.ts'
import { idContext } from '../proposal/index.ts'
import { dropSections, renameSection, type Section, type Site, type SitePage } from '../site/index.ts'
import type { Finding } from './codes.ts'

export interface OpenInput {
  site: Site
  page: SitePage
  reading: PageReading
  undeclared: ReadonlySet<string>
  /** IDs that the page's styles and scripts name. */
  named: NamedIds
  /** By screen key. */
  surveys: Readonly<Record<string, Survey>>
}

const ofId = new Set(['id-empty', 'id-space', 'id-hash', 'id-selector', 'id-case', 'id-reserved', 'id-shadow', 'id-duplicate'])

/** @param findings of the page as it was brought in */
export function openFindings(input: OpenInput, findings: readonly Finding[]): Finding[] {
  const { page, reading } = input
  if (!page.sections.length) return [...findings]
  const sections = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s]))
  const ids = new Set(page.sections.flatMap((s) => [s.id, ...s.former]))
  const items = new Map(page.menus.flatMap((m) => m.items.map((item) => [item.link, { menu: m, item }])))
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const hadId = new Map(reading.ids.map((i) => [i.at, i.id]))
  const open = findings.flatMap((finding): Finding[] => {
    const { code, at } = finding
    if (at === null) return [finding]
    if (code === 'link-broken' || code === 'link-case') {
      const used = items.get(at)
      if (used && used.item.target.kind !== 'as-is') return []
      const wanted = decodeFragment(links.get(at)?.fragment ?? '')
      if (ids.has(wanted)) return []
      const meant = page.sections.find((s) => s.id.toLowerCase() === wanted.toLowerCase())
      const fix =
        used && meant
          ? {
              label: `Link to “${meant.title}”`,
              command: {
                type: 'item/target',
                page: page.key,
                menu: used.menu.key,
                item: used.item.key,
                target: { kind: 'section', section: meant.key },
              } as const,
            }
          : null
      return [{ ...finding, fix }]
    }
    const section = sections.get(at)
    if (code === 'heading-missing') return section ? [finding] : []
    if (code === 'section-hidden' || code === 'section-empty')
      return [section ? { ...finding, fix: { label: 'Drop this section', command: dropSections(page, [section]) } } : finding]
    if (!section || !ofId.has(code)) return [finding]
    return section.id === hadId.get(at) ? [{ ...finding, fix: renameFix(input, section) }] : []
  })
  return [...open, ...stillNamed(input), ...formerClashes(input), ...unseenSections(input, open)].sort(
    (a, b) => a.line - b.line || a.column - b.column,
  )
}

function renameFix(input: OpenInput, section: Section): Finding['fix'] {
  const id = soundId(section.id, idContext(input, section))
  return { label: `Rename to “${id}”`, command: renameSection(input.page.key, section, id) }
}

function placeOfElement({ reading }: OpenInput, at: ElementAt): Place {
  const { line, column } = reading.candidates.find((c) => c.at === at) ?? reading.ids.find((i) => i.at === at) ?? { line: 1, column: 1 }
  return { line, column }
}

/** IDs that were changed although the page's own styles or scripts name them: what those do no longer comes about. */
function stillNamed(input: OpenInput): Finding[] {
  const { page, reading, named } = input
  const had = new Map(reading.ids.map((i) => [i.at, i.id]))
  return page.sections.flatMap((section): Finding[] => {
    const was = section.point ? undefined : had.get(section.at)
    if (!was || was === section.id) return []
    const who = [named.styles.includes(was) ? 'styles' : [], named.scripts.includes(was) ? 'scripts' : []].flat().join(' and ')
    if (!who) return []
    return [
      {
        code: 'id-in-use',
        severity: 'warning',
        message: `The page’s ${who} name “#${was}”, which is “#${section.id}” now; what they do to it no longer happens.`,
        ...placeOfElement(input, section.at),
        at: section.at,
        fix: {
          label: `Keep “${was}”`,
          command: { type: 'section/id', page: page.key, section: section.key, id: was, former: section.former.filter((f) => f !== was) },
        },
      },
    ]
  })
}

/** Former IDs that something on the page has now: links that mean the section go there. */
function formerClashes(input: OpenInput): Finding[] {
  const { page, reading } = input
  const byElement = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s]))
  return page.sections.flatMap((section) =>
    section.former.flatMap((former): Finding[] => {
      const other = page.sections.find((s) => s !== section && (s.id === former || s.former.includes(former)))
      const element = reading.ids.find((i) => i.id === former && !byElement.has(i.at))
      if (!other && !element) return []
      const who = other ? `the section “${other.title}”` : `the ${element!.tag} on line ${element!.line}`
      return [
        {
          code: 'former-clash',
          severity: 'warning',
          message: `The former ID “${former}” of “${section.title}” belongs to ${who} as well; old links to it go to one of the two only.`,
          ...placeOfElement(input, section.at),
          at: section.at,
          fix: {
            label: `Forget “${former}”`,
            command: {
              type: 'section/id',
              page: page.key,
              section: section.key,
              id: section.id,
              former: section.former.filter((f) => f !== former),
            },
          },
        },
      ]
    }),
  )
}

/** Sections without a box on a screen: no link moves the page to them there. */
function unseenSections(input: OpenInput, known: readonly Finding[]): Finding[] {
  const { page, site, surveys } = input
  const hidden = new Map(
    Object.entries(surveys).map(([key, survey]) => [key, new Set(survey.parts.flatMap((p) => (p.hasBox ? [] : p.at)))]),
  )
  const told = new Set(known.filter((f) => f.code === 'section-hidden').map((f) => f.at))
  return page.sections.flatMap((section): Finding[] => {
    const screens = site.screens.filter((s) => hidden.get(s.key)?.has(section.at))
    if (!screens.length || told.has(section.at)) return []
    const where = screens.length === site.screens.length ? 'on no screen' : `not on ${screens.map((s) => `“${s.name}”`).join(', ')}`
    return [
      {
        code: 'section-hidden',
        severity: screens.length === site.screens.length ? 'error' : 'warning',
        message: `The section “${section.title}” has a place ${where}; there, links to it do nothing.`,
        ...placeOfElement(input, section.at),
        at: section.at,
        fix: { label: 'Drop this section', command: dropSections(page, [section]) },
      },
    ]
  })
}
