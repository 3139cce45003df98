/** Assigns screens to frames. */
import type { Screen } from '@waybell/core'

/** Max frames. */
export const MOST_FRAMES = 5

/** The screens of each frame. A screen stays in its frame, so that nothing is measured twice. @param held the frame of a screen, by key */
export function sharesOf<S extends Pick<Screen, 'key'>>(screens: readonly S[], held: ReadonlyMap<string, number>): S[][] {
  const shares = Array.from({ length: MOST_FRAMES }, (_, n) => screens.filter((s) => held.get(s.key) === n))
  for (const screen of screens)
    if (!held.has(screen.key)) shares.reduce((least, share) => (share.length < least.length ? share : least)).push(screen)
  return shares
}
