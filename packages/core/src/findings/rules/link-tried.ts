/** What the quick walk saw: a link of a menu that does not do as computed when it is pressed. */
import { judgeTried } from '../../walk/index.ts'
import type { SiteFacts } from '../facts.ts'
import type { Draft, Rule } from '../finding.ts'

/** By what is wrong with which link, the names of the screens on which it is. */
function wrongLinks({ page, site, surveys, tried }: SiteFacts) {
  const out = new Map<string, { label: string; href: string; why: string; screens: string[] }>()
  for (const screen of site.screens)
    for (const { tried: one, fault, why } of judgeTried(page, surveys[screen.key] ?? null, tried[screen.key] ?? [])) {
      // What has no target is told where it stands, whether it was tried or not.
      if (!fault || fault === 'nowhere') continue
      const key = `${one.label} ${one.href} ${fault}`
      const known = out.get(key)
      if (known) known.screens.push(screen.name)
      else out.set(key, { label: one.label, href: one.href, why, screens: [screen.name] })
    }
  return [...out.values()]
}

export const rule: Rule = {
  severity: 'error',
  task: 'walk',
  inSite: (facts) =>
    wrongLinks(facts).map(({ label, href, why, screens }): Draft => {
      // The handover may have given it its address; then the section says where it is.
      const link = facts.reading.links.find((l) => l.href === href && l.label === label)
      const section = facts.page.sections.find((s) => `#${s.id}` === href)
      const where = screens.length === facts.site.screens.length ? 'on every screen' : `on ${screens.map((s) => `“${s}”`).join(', ')}`
      return {
        message: `“${label}” ${why} (${where}).`,
        ...(link ? { line: link.line, column: link.column } : section ? facts.placeOf(section.at) : { line: 1, column: 1 }),
        where: { ...(link || section ? { at: link?.at ?? section!.at } : {}), ...(section ? { section: section.key } : {}) },
        fix: null,
      }
    }),
}
