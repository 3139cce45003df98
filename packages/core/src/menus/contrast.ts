/**
 * Contrast over the trip: what a menu that is made is read on, in each state of its items and over everything that it stands over while the page
 * scrolls. Grounds are colours as they were measured; pictures and gradients behind it are not known here.
 * @see WCAG 2.2, 1.4.3; docs/calculations.md, section 8
 */
import { backingFor, contrast, laidOver, mixed, READABLE } from '../colour/index.ts'
import type { MadeMenu, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { STATES, type ItemState } from './forms/form.ts'
import { withOpacity } from './look.ts'
import { isOn } from './shown.ts'

/** The lowest ratio of a state, and where it is so. */
export interface StateContrast {
  state: ItemState
  ratio: number
  /** Key of the screen; title of the section, null for the page itself. */
  screen: string
  over: string | null
}

interface Ground {
  screen: string
  over: string | null
  colour: string
}

const COMES_BY = ['bar', 'rail', 'marks', 'floating', 'corner']

/** What lies behind the menu on a screen: under one that stays in view every section comes by. */
function groundsOf(menu: MadeMenu, page: SitePage, survey: Survey): Ground[] {
  const own = laidOver(survey.background, 'rgb(255, 255, 255)')
  const under = { screen: survey.screen, over: null, colour: own }
  if (!COMES_BY.includes(menu.form.kind)) return [under]
  const parts = new Map(survey.parts.map((p) => [p.at, p]))
  return [
    under,
    ...page.sections.flatMap((s) => {
      const part = s.point ? undefined : parts.get(s.at)
      return part ? [{ screen: survey.screen, over: s.title, colour: laidOver(part.background, own) }] : []
    }),
  ]
}

/** What a state's words are written in, and what lies behind them, the undermost first. */
function layersOf({ look = {} }: MadeMenu, state: ItemState, survey: Survey, opacity?: number): { ink: string; layers: string[] } {
  const { rest, [state]: own } = { rest: undefined, ...look.states }
  const given = own?.ink ?? rest?.ink ?? look.ink
  const page = backingFor(survey.color, survey.background)
  const ground = look.ground === undefined ? page : withOpacity(look.ground, opacity ?? look.opacity)
  const backings = state === 'rest' || state === 'visited' ? [rest] : [rest, own]
  return {
    ink: given === undefined ? survey.color : withOpacity(given),
    layers: [ground, ...backings.flatMap((b) => (b?.backing === undefined ? [] : withOpacity(b.backing, b.opacity)))],
  }
}

const ratioOf = (ink: string, layers: readonly string[], ground: string): number =>
  contrast(
    ink,
    layers.reduce((under, over) => laidOver(over, under), ground),
  ) ?? 1

const onWhich = (menu: MadeMenu, surveys: readonly Survey[]) => surveys.filter((s) => isOn(menu, { key: s.screen, width: s.width }))

/** In the order of the states; nothing where no screen was measured. */
export function contrastsOf(menu: MadeMenu, page: SitePage, surveys: readonly Survey[]): StateContrast[] {
  const grounds = onWhich(menu, surveys).map((survey) => ({ survey, grounds: groundsOf(menu, page, survey) }))
  return STATES.flatMap((state) => {
    const all = grounds.flatMap(({ survey, grounds: behind }) => {
      const { ink, layers } = layersOf(menu, state, survey)
      return behind.map(({ screen, over, colour }): StateContrast => ({ state, screen, over, ratio: ratioOf(ink, layers, colour) }))
    })
    return all.length ? [all.reduce((least, one) => (one.ratio < least.ratio ? one : least))] : []
  })
}

/** Of states that have to be read. */
export const lowest = (contrasts: readonly StateContrast[]): StateContrast | undefined =>
  [...contrasts].filter((c) => c.state !== 'held').sort((a, b) => a.ratio - b.ratio)[0]

/** The least opacity of the menu's ground, in %, with which all of it can be read; null where there is none. */
export function leastOpacity(menu: MadeMenu, page: SitePage, surveys: readonly Survey[]): number | null {
  if (menu.look?.ground === undefined) return null
  // The opacities that do need not be one stretch: each is looked at.
  for (let opacity = 0; opacity <= 100; opacity++) {
    const look = { ...menu.look, opacity }
    const least = lowest(contrastsOf({ ...menu, look }, page, surveys))
    if (least && least.ratio >= READABLE) return opacity
  }
  return null
}

/** The colour nearest to that of a state's words with which these can be read everywhere, as `#rrggbb`; null where there is none. */
export function nearestInk(menu: MadeMenu, state: ItemState, page: SitePage, surveys: readonly Survey[]): string | null {
  const shown = onWhich(menu, surveys)
  const behind = shown.flatMap((survey) => groundsOf(menu, page, survey).map((g) => ({ survey, ground: g.colour })))
  if (!behind.length) return null
  const { ink } = layersOf(menu, state, behind[0]!.survey)
  for (let percent = 0; percent <= 100; percent++)
    for (const to of ['#000000', '#ffffff']) {
      const next = mixed(ink, to, percent)
      const isRead = behind.every(
        ({ survey, ground }) => ratioOf(withOpacity(next), layersOf(menu, state, survey).layers, ground) >= READABLE,
      )
      if (isRead) return next
    }
  return null
}
