/** Leads outside the site: to another site, an e-mail or phone address, or a file. */
import { addressFault } from './address.ts'
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'outside'
  address: string
  /** Opens in a new tab. */
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
