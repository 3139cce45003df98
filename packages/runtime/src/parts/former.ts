/** For pages with former IDs. */
import { decodeFragment, fragmentOf, type Settings } from '@waybell/core/contract'

/** Sends a visitor who comes by a former ID on to the one that the section has now. @returns true where it did; `hashchange` follows */
export function renewHash(s: Settings): boolean {
  const id = decodeFragment(fragmentOf(location.hash))
  const renewed = s.former.find(([was]) => was === id)
  // Adds nothing to the history, and Tab goes on from the section itself.
  if (renewed) location.replace('#' + renewed[1].replace(/%/g, '%25'))
  return !!renewed
}
