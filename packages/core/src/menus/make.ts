/** A menu that Way Bell makes. */
import { labelOf } from '../naming/index.ts'
import { decodeFragment, fragmentOf } from '../contract/index.ts'
import type { PageReading, WrittenLink } from '../page/index.ts'
import type { Item, ItemTarget, MadeMenuForm, Menu, Section } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

/** With an item for each section in page order; or with the items that an earlier handover wrote, where `reading` has some. */
export function makeMenu(sections: readonly Section[], surveys: readonly Survey[], reading: PageReading | null = null): Menu {
  const key = 'm1'
  const form: MadeMenuForm = { kind: 'bar', place: placeBar(sections, surveys) }
  const earlier = reading?.written.menu
  const byId = new Map(sections.map((s) => [s.id, s]))
  const items = earlier
    ? earlier.links.flatMap((link, n): Item[] => {
        const target = targetOfWritten(link, byId)
        if (!target) return []
        const { label, title, lang } = link
        // What is said of a label that was made shorter is no tooltip of the designer's.
        const isWhole = target.kind === 'section' && sections.some((s) => s.key === target.section && s.title === title)
        const said = { ...(title && !isWhole && { tooltip: title }), ...(lang && { lang }) }
        return [{ key: `${key}-${n}`, label, target, links: [], ...said }]
      })
    : sections.map((s, n): Item => ({
        key: `${key}-${n}`,
        label: labelOf(s.title),
        target: { kind: 'section', section: s.key },
        links: [],
      }))
  return { key, name: 'Header menu', form, items }
}

/** What leads to another page was written from where the site had it: here it is an address. */
function targetOfWritten({ href, isNewTab }: WrittenLink, byId: ReadonlyMap<string, Section>): ItemTarget | null {
  if (!href.startsWith('#')) return { kind: 'outside', address: href, newTab: isNewTab }
  const section = byId.get(decodeFragment(fragmentOf(href)))
  return section ? { kind: 'section', section: section.key } : href === '#' ? { kind: 'top' } : null
}

/** Behind a header that sticks, over the page below one that lies on it, else at the page's top. */
function placeBar(sections: readonly Section[], surveys: readonly Survey[]): Extract<MadeMenuForm, { kind: 'bar' }>['place'] {
  const headers = surveys.flatMap((s) => (s.header ? [{ survey: s, header: s.header }] : []))
  if (headers.some(({ header }) => header.position === 'sticky')) return 'after-header'
  const lies = headers.some(({ survey, header }) => {
    const top = survey.parts.find((p) => p.at === sections[0]?.at)?.top ?? 0
    return header.position === 'fixed' && top < header.rest - 1
  })
  return lies ? 'under-fixed' : 'top'
}
