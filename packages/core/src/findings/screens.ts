/** How findings name screens. */
import type { Screen, Site } from '../site/index.ts'

export const onScreens = ({ screens }: Site, those: readonly Pick<Screen, 'name'>[]): string =>
  those.length === screens.length ? 'on every screen' : `on ${those.map(({ name }) => `“${name}”`).join(', ')}`
