/**
 * Contrast of a menu in each item state, over everything that scrolls behind it. Grounds are measured colours: a gradient's stops, a
 * grid of a picture's pixels.
 * @see WCAG 2.2, 1.4.3; docs/calculations.md, section 8
 */
import { backingFor, contrast, laidOver, mixed, READABLE } from '../colour/index.ts'
import { isFound, isMade, type Menu, type SitePage } from '../site/index.ts'
import type { Survey, SurveyMenu } from '../survey/index.ts'
import { FOUND_STATES, STATES, type ItemState } from './forms/form.ts'
import { withOpacity } from './look.ts'
import { onScrollFrom, partUnder } from './on-scroll.ts'
import { isOn } from './shown.ts'

/** The lowest ratio of a state, and its place. */
export interface StateContrast {
  state: ItemState
  ratio: number
  /** Key of the screen; title of the section, null for the page. */
  screen: string
  over: string | null
}

/** A colour behind the menu, and its range in px of the page. */
interface Ground {
  over: string | null
  colour: string
  top: number
  bottom: number
}

/** Caches results by colour pair: pages have few colours and many places. */
function keeping<T>(work: (a: string, b: string) => T): (a: string, b: string) => T {
  const known = new Map<string, T>()
  return (a, b) => {
    const key = `${a}|${b}`
    let value = known.get(key)
    if (value === undefined) {
      if (known.size > MOST_KEPT) known.clear()
      known.set(key, (value = work(a, b)))
    }
    return value
  }
}
const MOST_KEPT = 5000
const painted = keeping(laidOver)
const ratioTo = keeping((ink, behind) => contrast(ink, behind) ?? 1)

const COMES_BY = ['bar', 'rail', 'marks', 'floating', 'corner']

const seenOf = (menu: Menu, survey: Survey): SurveyMenu | undefined =>
  isFound(menu) ? survey.menus.find((m) => m.isDrawn && menu.form.elements.includes(m.at)) : undefined

/** The colours behind the menu on a screen; every section for one that stays. */
function groundsOf(menu: Menu, page: SitePage, survey: Survey): Ground[] {
  const own = painted(survey.background, 'rgb(255, 255, 255)')
  // A first section that starts under the header is behind it at the top.
  const from = page.header?.under ? (partUnder(page, survey)?.bottom ?? 0) : 0
  const under = { over: null, colour: own, top: from, bottom: survey.pageHeight }
  if (!(isFound(menu) ? seenOf(menu, survey)?.stays : COMES_BY.includes(menu.form.kind))) return [under]
  const parts = new Map(survey.parts.map((p) => [p.at, p]))
  return [
    under,
    ...page.sections.flatMap((s) => {
      const part = s.point ? undefined : parts.get(s.at)
      if (!part) return []
      const colours = part.grounds.length ? part.grounds : [part.background]
      return colours.map((colour) => ({ over: s.title, colour: painted(colour, own), top: part.top, bottom: part.bottom }))
    }),
  ]
}

/** Colours behind a menu's text up to a scroll position in px: a header may have no background at first. */
interface Layers {
  ink: string
  layers: string[]
  upTo: number
}

/** In a header whose background we changed, the page's layers don't apply. */
function groundsInHeader(page: SitePage, { grounds, stays }: SurveyMenu, survey: Survey): { grounds: string[]; upTo: number }[] {
  const { header } = page
  const own = grounds ?? []
  const all = { grounds: own, upTo: Infinity }
  if (!header || !stays || survey.header?.at !== header.at) return [all]
  // The header's own background is undermost.
  const within = survey.header.transparent ? own : own.slice(1)
  const solid = header.backing === null ? all : { grounds: [header.backing, ...within], upTo: Infinity }
  const { onScroll } = header
  if (!onScroll?.clear || onScroll.off?.includes(survey.screen)) return [solid]
  return [solid, { grounds: within, upTo: onScrollFrom(page, survey) + survey.header.rest }]
}

/** Text colour of a state and its layers, undermost first. */
function layersOf(menu: Menu, state: ItemState, page: SitePage, survey: Survey): Layers[] {
  const { look = {} } = menu
  const seen = seenOf(menu, survey)
  const { rest, [state]: own } = { rest: undefined, ...look.states }
  const given = own?.ink ?? rest?.ink ?? look.ink
  const under = look.ground === undefined ? backingFor(survey.color, survey.background) : withOpacity(look.ground, look.opacity)
  const all = seen ? groundsInHeader(page, seen, survey) : [{ grounds: [under], upTo: Infinity }]
  const backings = state === 'rest' || state === 'visited' ? [rest] : [rest, own]
  return all.map(({ grounds, upTo }) => ({
    ink: given === undefined ? (seen?.ink ?? survey.color) : withOpacity(given),
    layers: [...grounds, ...backings.flatMap((b) => (b?.backing === undefined ? [] : withOpacity(b.backing, b.opacity)))],
    upTo,
  }))
}

/** The lowest ratio over one ground. */
const ratioOf = (all: readonly Layers[], { colour, top }: Ground): number =>
  Math.min(
    ...all.flatMap(({ ink, layers, upTo }) =>
      top < upTo
        ? ratioTo(
            ink,
            layers.reduce((under, over) => painted(over, under), colour),
          )
        : [],
    ),
  )

/** The first place of each colour. */
const distinct = (grounds: readonly Ground[]): Ground[] => [...new Map([...grounds].reverse().map((g) => [g.colour, g])).values()].reverse()

/** Screens that show the menu; unknown when a picture in the menu is behind its text. */
const onWhich = (menu: Menu, surveys: readonly Survey[]) =>
  surveys.filter((s) => (isMade(menu) ? isOn(menu, { key: s.screen, width: s.width }) : (seenOf(menu, s)?.grounds ?? null) !== null))

const statesOf = (menu: Menu): readonly ItemState[] => (isMade(menu) ? STATES : ['rest', ...FOUND_STATES])

/** In order of states; empty without surveys. */
export function contrastsOf(menu: Menu, page: SitePage, surveys: readonly Survey[]): StateContrast[] {
  const grounds = onWhich(menu, surveys).map((survey) => ({ survey, grounds: distinct(groundsOf(menu, page, survey)) }))
  return statesOf(menu).flatMap((state) => {
    const all = grounds.flatMap(({ survey, grounds: behind }) => {
      const all = layersOf(menu, state, page, survey)
      return behind.map((ground): StateContrast => ({ state, screen: survey.screen, over: ground.over, ratio: ratioOf(all, ground) }))
    })
    return all.length ? [all.reduce((least, one) => (one.ratio < least.ratio ? one : least))] : []
  })
}

/** A stretch of the page behind the menu, and its ratio. Lengths in px. */
export interface ContrastStretch {
  over: string | null
  top: number
  bottom: number
  ratio: number
}

/** What a state is read on from the page's top to its bottom, on one screen; the page first. Empty if unknown. */
export function contrastTrip(menu: Menu, state: ItemState, page: SitePage, survey: Survey): ContrastStretch[] {
  if (!onWhich(menu, [survey]).length) return []
  const all = layersOf(menu, state, page, survey)
  const out: ContrastStretch[] = []
  for (const ground of groundsOf(menu, page, survey)) {
    const { over, top, bottom } = ground
    const ratio = ratioOf(all, ground)
    const last = out.at(-1)
    // Gradients and pictures count with their worst colour.
    if (last && last.over === over && last.top === top && last.bottom === bottom) last.ratio = Math.min(last.ratio, ratio)
    else out.push({ over, top, bottom, ratio })
  }
  return out
}

/** States that must be readable. */
export const lowest = (contrasts: readonly StateContrast[]): StateContrast | undefined =>
  [...contrasts].filter((c) => c.state !== 'held').sort((a, b) => a.ratio - b.ratio)[0]

/** The lowest background opacity in % that makes everything readable; null for none. */
export function leastOpacity(menu: Menu, page: SitePage, surveys: readonly Survey[]): number | null {
  if (menu.look?.ground === undefined) return null
  // Readable opacities may have gaps, so each is tested.
  for (let opacity = 0; opacity <= 100; opacity++) {
    const look = { ...menu.look, opacity }
    const least = lowest(contrastsOf({ ...menu, look }, page, surveys))
    if (least && least.ratio >= READABLE) return opacity
  }
  return null
}

/** The colour closest to a state's text colour that is readable everywhere, as `#rrggbb`; null for none. */
export function nearestInk(menu: Menu, state: ItemState, page: SitePage, surveys: readonly Survey[]): string | null {
  const shown = onWhich(menu, surveys)
  const behind = shown.flatMap((survey) => distinct(groundsOf(menu, page, survey)).map((ground) => ({ survey, ground })))
  if (!behind.length) return null
  const { ink } = layersOf(menu, state, page, behind[0]!.survey)[0]!
  for (let percent = 0; percent <= 100; percent++)
    for (const to of ['#000000', '#ffffff']) {
      const next = mixed(ink, to, percent)
      const isRead = behind.every(
        ({ survey, ground }) =>
          ratioOf(
            layersOf(menu, state, page, survey).map((l) => ({ ...l, ink: withOpacity(next) })),
            ground,
          ) >= READABLE,
      )
      if (isRead) return next
    }
  return null
}
