/** Leads to an address that is not the site's: another site, mail, a telephone, a file that lies beside the page. */
import { addressFault } from './address.ts'
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'outside'
  address: string
  /** Opens in a tab of its own. */
  newTab: boolean
}

export const item: ItemKind<Target> = {
  shape: (s) => ({ address: s.text, newTab: s.is }),
  href: ({ address }) => address,
  section: () => null,
  isNewTab: ({ newTab }) => newTab,
  fault: (target) => {
    const fault = addressFault(target.address)
    return fault && { why: fault.why, meant: fault.meant === null ? null : { ...target, address: fault.meant } }
  },
}
