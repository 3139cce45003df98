/** Commands for the whole site. */
import type { NamingRule } from '../../naming/index.ts'
import { siteFolder, type SiteAddress } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import type { KindsOf } from './kind.ts'
import { addressShape, ruleShape } from './shapes.ts'

export type SiteCommand =
  | { type: 'site/rename'; name: string }
  | { type: 'site/rule'; rule: NamingRule }
  | { type: 'site/scripts'; scripts: boolean }
  | { type: 'site/small'; small: boolean }
  | { type: 'site/address'; address: SiteAddress | undefined }

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
    name: 'Switch page scripts',
    payload: (s) => ({ scripts: s.is }),
    touches: () => ({ writes: ['scripts'] }),
    apply: ({ scripts, ...site }, c) => ({
      site: c.scripts ? site : { ...site, scripts: false },
      inverse: { ...c, scripts: scripts !== false },
    }),
  },
  'site/small': {
    name: 'Choose how the script is written',
    payload: (s) => ({ small: s.is }),
    touches: () => ({ writes: ['small'] }),
    apply: ({ small, ...site }, c) => ({ site: c.small ? { ...site, small: true } : site, inverse: { ...c, small: !!small } }),
  },
  'site/address': {
    name: 'Set the site’s address',
    payload: (s) => ({ address: addressShape(s) }),
    touches: () => ({ writes: ['address'] }),
    apply: ({ address, ...site }, c) => {
      if (c.address && siteFolder(c.address.url) !== c.address.url)
        throw new CommandError(`“${c.address.url}” isn’t a folder’s address; enter one such as https://ostrey.example/week/`)
      return { site: c.address ? { ...site, address: c.address } : site, inverse: { ...c, address } }
    },
  },
}
