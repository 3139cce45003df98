/** Commands on the site as a whole. */
import type { NamingRule } from '../../naming/index.ts'
import type { KindsOf } from './kind.ts'
import { ruleShape } from './shapes.ts'

export type SiteCommand =
  { type: 'site/rename'; name: string } | { type: 'site/rule'; rule: NamingRule } | { type: 'site/scripts'; scripts: boolean }

export const siteCommands: KindsOf<SiteCommand> = {
  'site/rename': {
    name: 'Rename the site',
    payload: (s) => ({ name: s.text }),
    touches: () => ({ writes: ['name'] }),
    apply: (site, c) => ({ site: { ...site, name: c.name }, inverse: { ...c, name: site.name } }),
  },
  'site/rule': {
    name: 'Change the naming rule',
    payload: (s) => ({ rule: ruleShape(s) }),
    touches: () => ({ writes: ['rule'] }),
    apply: (site, c) => ({ site: { ...site, rule: c.rule }, inverse: { ...c, rule: site.rule } }),
  },
  'site/scripts': {
    name: 'Switch the pages’ own scripts',
    payload: (s) => ({ scripts: s.is }),
    touches: () => ({ writes: ['scripts'] }),
    apply: ({ scripts, ...site }, c) => ({
      site: c.scripts ? site : { ...site, scripts: false },
      inverse: { ...c, scripts: scripts !== false },
    }),
  },
}
