/** Commands for screens. */
import type { Screen, Site } from '../document/index.ts'
import { plainScreens, sizeText } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { checkFree, insert, replace, type Applied, type KindsOf } from './kind.ts'
import { screenShape } from './shapes.ts'

export type ScreenCommand =
  | { type: 'screen/add'; screen: Screen; index: number }
  | { type: 'screen/drop'; screen: string }
  | { type: 'screen/move'; screen: string; index: number }
  /** Replaces the screen with the same key. */
  | { type: 'screen/change'; screen: Screen }

/** Limits of a screen's width and height, in CSS px. */
const SCREEN_SIZES = { least: 200, most: 8000 } as const
/** Max text size in percent. */
export const LARGEST_TEXT = 200

export const screenCommands: KindsOf<ScreenCommand> = {
  'screen/add': {
    name: 'Add a screen',
    payload: (s) => ({ screen: screenShape(s), index: s.index }),
    touches: () => ({ writes: ['screens'] }),
    apply: (site, c) => {
      checkFree(site.screens, c.screen.key, `the site has the screen “${c.screen.key}” already`)
      return withScreens(site, insert(site.screens, c.index, c.screen), { type: 'screen/drop', screen: c.screen.key })
    },
  },
  'screen/drop': {
    name: 'Remove a screen',
    payload: (s) => ({ screen: s.key }),
    touches: () => ({ writes: ['screens'] }),
    apply: (site, c) => {
      const screen = screenOf(site, c.screen)
      if (site.screens.length === 1) throw new CommandError(`“${screen.name}” is the site’s only screen; add another first`)
      // Decisions about menus on it are kept, in case the screen returns.
      return withScreens(site, without(site, screen), { type: 'screen/add', screen, index: site.screens.indexOf(screen) })
    },
  },
  'screen/move': {
    name: 'Move a screen',
    payload: (s) => ({ screen: s.key, index: s.index }),
    touches: () => ({ writes: ['screens'] }),
    apply: (site, c) => {
      const screen = screenOf(site, c.screen)
      return withScreens(site, insert(without(site, screen), c.index, screen), { ...c, index: site.screens.indexOf(screen) })
    },
  },
  'screen/change': {
    name: 'Change a screen',
    payload: (s) => ({ screen: screenShape(s) }),
    touches: () => ({ writes: ['screens'] }),
    apply: (site, c) => {
      const before = screenOf(site, c.screen.key)
      return withScreens(site, replace(site.screens, before, c.screen), { ...c, screen: before })
    },
  },
}

function screenOf(site: Site, key: string): Screen {
  const screen = site.screens.find((s) => s.key === key)
  if (!screen) throw new CommandError(`the site has no screen “${key}”; it may have been removed`)
  return screen
}

/** Why a screen can't be added, in words; null if it can. */
export function faultOfScreen({ name, width, height, text }: Screen, others: readonly Screen[]): string | null {
  const { least, most } = SCREEN_SIZES
  if (name.trim() === '') return 'a screen needs a name'
  if (others.some((s) => s.name === name)) return `the site has a screen “${name}” already; choose another name`
  if (![width, height].every((n) => Number.isInteger(n) && n >= least && n <= most))
    return `“${name}” would be ${width}×${height}; a screen has from ${least} to ${most} px each way`
  if (text !== undefined && !(Number.isInteger(text) && text > 100 && text <= LARGEST_TEXT))
    return `the text of “${name}” would be ${text}%; it is from 100 to ${LARGEST_TEXT}%`
  // CSS couldn't tell them apart.
  const same = others.find((s) => s.width === width && s.height === height && s.text === text)
  return same ? `“${same.name}” is ${sizeText(same)} already; choose another size` : null
}

const without = ({ screens }: Site, screen: Screen) => screens.filter((s) => s !== screen)

function withScreens(site: Site, screens: Screen[], inverse: ScreenCommand): Applied<ScreenCommand> {
  for (const [i, screen] of screens.entries()) {
    const fault = faultOfScreen(screen, screens.slice(0, i))
    if (fault) throw new CommandError(fault)
  }
  if (!plainScreens(screens).length) throw new CommandError('large text needs a screen with normal text; keep at least one')
  return { site: { ...site, screens }, inverse }
}
