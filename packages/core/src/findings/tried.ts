/** Shared by the rules about tried links. */
import { triedKey, type Tried, type TryVerdict } from '../walk/index.ts'
import type { Screen } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Draft, Fix } from './finding.ts'
import { onScreens } from './screens.ts'

/** One draft for each link and kind, with its screens. @param told gives it for a verdict; null for none */
export function triedLinks(
  facts: SiteFacts,
  told: (verdict: TryVerdict) => { kind: string; why: string; fix?: Fix | null } | null,
): Draft[] {
  const { page, site } = facts
  const out = new Map<string, { tried: Tried; why: string; fix: Fix | null; screens: Screen[] }>()
  for (const screen of site.screens)
    for (const verdict of facts.verdictsOn(screen.key)) {
      const found = told(verdict)
      if (!found) continue
      const key = `${triedKey(verdict.tried)} ${found.kind}`
      const known = out.get(key)
      // The same link may be in several menus.
      if (known) known.screens.push(...(known.screens.includes(screen) ? [] : [screen]))
      else out.set(key, { tried: verdict.tried, why: found.why, fix: found.fix ?? null, screens: [screen] })
    }
  return [...out.values()].map(({ tried: { at, label, href }, why, fix, screens }): Draft => {
    // Links of made menus aren't in the source; their section is.
    const link = facts.links.get(at ?? -1)
    const section = page.sections.find((s) => `#${s.id}` === href)
    return {
      message: `“${label}” ${why} (${onScreens(site, screens)}).`,
      ...(link ? { line: link.line, column: link.column } : section ? facts.placeOf(section.at) : { line: 1, column: 1 }),
      where: { ...(link || section ? { at: link?.at ?? section!.at } : {}), ...(section ? { section: section.key } : {}) },
      fix,
    }
  })
}

/** Null if done already, or if the page's script would scroll back afterwards. */
export const takePresses = ({ page: { key, travel }, surveys }: Pick<SiteFacts, 'page' | 'surveys'>): Fix | null =>
  travel.takesPresses || Object.values(surveys).some((s) => s.isHeld)
    ? null
    : { label: 'Handle presses instead of the page’s script', command: { type: 'travel/presses', page: key, takes: true } }
