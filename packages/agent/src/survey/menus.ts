/** How the page's menus mark their current item before any edit, and which of our marks would show. */
import { entryOf, MARK_STYLES, markRule, markStyles, MENU, SCROLLS, type MarkStyle } from '@waybell/core/contract'
import type { PageMark, SurveyMenu } from '@waybell/core/survey'
import { isTopOnly, sameDocumentHash, targetOf } from '../links/follow.ts'
import { isShown, lookOf, MARKING, underSheet } from '../links/marks.ts'
import { furthest, jumpTo, topOf, viewHeight } from '../page/scroller.ts'
import { untilQuiet } from '../page/settle.ts'
import { elementAt } from '../page/stamps.ts'
import { ownTravel } from './travel.ts'

/** Max links followed per menu to check its marks. */
const MOST_FOLLOWED = 12

interface Holder {
  link: HTMLAnchorElement
  entry: Element
}

/** A possible mark: a class on link or entry, or `aria-current` on the link. */
type Token = `${'link' | 'entry'} ${string}`

/** A menu, and its items' tokens at each stop. */
interface Seen {
  at: number
  el: Element
  holders: Holder[]
  states: Set<Token>[][]
}

function unseen(at: number): Seen[] {
  const el = elementAt(at)
  if (!el) return []
  const links = [...el.querySelectorAll<HTMLAnchorElement>('a[href]')]
  return [{ at, el, holders: links.map((link) => ({ link, entry: entryOf<Element>(link, el) })), states: [] }]
}

const look = (menus: readonly Seen[]): void => menus.forEach(({ holders, states }) => states.push(holders.map(tokensOf)))

export interface OwnMarks {
  /** Reads at the current scroll position. */
  look: () => void
  /** Results for these menus. May scroll the page, and leaves it anywhere. */
  of: (menus: readonly number[]) => Promise<SurveyMenu[]>
}

export function watchMarks(menus: readonly number[]): OwnMarks {
  const watched = menus.flatMap(unseen)
  const hasLinksOf = (a: Seen, b: Seen) =>
    a.holders.length === b.holders.length && a.holders.every(({ link }, i) => link === b.holders[i]!.link)
  return {
    look: () => look(watched),
    // Menus built in the meantime weren't read yet.
    of: (all) => ownMarks(all.flatMap(unseen).map((menu) => watched.find((w) => w.at === menu.at && hasLinksOf(w, menu)) ?? menu)),
  }
}

async function ownMarks(menus: readonly Seen[]): Promise<SurveyMenu[]> {
  const isNew = menus.filter(({ states }) => !states.length)
  for (const part of isNew.length ? [0, 0.25, 0.5, 0.75, 1] : []) {
    jumpTo(Math.round(part * furthest()))
    await untilQuiet(40)
    look(isNew)
  }
  const out: SurveyMenu[] = []
  for (const { at, el, holders, states } of menus) {
    const drawn = holders.filter(({ link }) => isShown(link))
    const moving = movingToken(states)
    const token = moving ?? stillToken(states.at(-1)!)
    const own: PageMark | null = token && {
      ...(token === ARIA ? { name: '', on: 'link' } : partsOf(token)),
      followsScroll: token === moving,
      isRight: token === moving && (await isRight(token, holders)),
      isSeen: shows(token, drawn, holders),
    }
    out.push({
      at,
      isDrawn: drawn.length > 0,
      shows: drawn.length ? stylesThatShow(el, drawn) : [],
      ...paintOf(usual(drawn)[0]?.link ?? el),
      slides: SCROLLS.test(getComputedStyle(el).overflowX) && el.scrollWidth > el.clientWidth,
      pageMark: own,
    })
  }
  return out
}

/** Max backgrounds reported. */
const MOST_LAYERS = 20

/** Text colour, and backgrounds up to a fixed element or the body. */
function paintOf(el: Element): Pick<SurveyMenu, 'ink' | 'grounds' | 'stays'> {
  let grounds: string[] | null = []
  let stays = false
  for (let e: Element | null = el; e && e !== document.body && !stays; e = e.parentElement) {
    const { backgroundColor, backgroundImage, position } = getComputedStyle(e)
    if (backgroundImage !== 'none') grounds = null
    if (grounds && grounds.length < MOST_LAYERS && !/^rgba\(.*, 0\)$|^transparent$/.test(backgroundColor)) grounds.unshift(backgroundColor)
    // Its background starts there.
    stays = position === 'fixed' || position === 'sticky'
  }
  return { ink: getComputedStyle(el).color, grounds, stays }
}

const ARIA: Token = 'link aria-current'
const partsOf = (token: Token): Pick<PageMark, 'on' | 'name'> => {
  const [on, name] = token.split(' ') as ['link' | 'entry', string]
  return { on, name: name.slice(1) }
}

function tokensOf({ link, entry }: Holder): Set<Token> {
  const out = new Set<Token>()
  for (const name of link.classList) out.add(`link .${name}`)
  if (entry !== link) for (const name of entry.classList) out.add(`entry .${name}`)
  const current = link.getAttribute('aria-current')
  if (current !== null && current !== 'false') out.add(ARIA)
  return out
}

const countOf = (state: readonly Set<Token>[], token: Token): number => state.filter((tokens) => tokens.has(token)).length

/** A token that is on one item here and another there. */
function movingToken(states: readonly Set<Token>[][]): Token | null {
  const all = new Set(states.flat().flatMap((tokens) => [...tokens]))
  const moving = [...all].filter((token) => {
    const on = states.map((state) => state.map((tokens) => tokens.has(token)).join())
    return new Set(on).size > 1 && states.every((state) => countOf(state, token) <= Math.max(1, state.length / 2))
  })
  // A class named like a mark wins over others.
  return moving.find((t) => MARKING.test(partsOf(t).name)) ?? moving.find((t) => t !== ARIA) ?? moving[0] ?? null
}

/** A token of exactly one item, named like a mark. */
function stillToken(state: readonly Set<Token>[]): Token | null {
  const all = new Set(state.flatMap((tokens) => [...tokens]))
  return [...all].find((token) => token !== ARIA && MARKING.test(partsOf(token).name) && countOf(state, token) === 1) ?? null
}

/** Share of the viewport's height: a target with less page left wouldn't arrive in a taller window. */
const SLACK = 0.3

/**
 * True when after each link it and its duplicates have the mark, and no other. If the last target only just arrives, taller windows
 * weren't seen and count as wrong.
 */
async function isRight(token: Token, holders: readonly Holder[]): Promise<boolean> {
  const leading = holders.flatMap(({ link, entry }) => {
    const hash = sameDocumentHash(link) ?? link.getAttribute('href')!
    const target = hash.startsWith('#') ? targetOf(hash) : null
    return target?.getClientRects().length || isTopOnly(hash) ? [{ link, entry, hash, target }] : []
  })
  if (leading.length < 2) return false
  const offset = ownTravel().padding
  for (const one of leading.slice(0, MOST_FOLLOWED)) {
    // Not by `:target`, which may scroll around the frame.
    const { target } = one
    const to = target ? topOf(target) - offset - parseFloat(getComputedStyle(target).scrollMarginTop) : 0
    const left = furthest() - to
    if (left >= 0 && left < viewHeight() * SLACK) return false
    jumpTo(to)
    await untilQuiet(250)
    const isSo = () => {
      const on = leading.filter((l) => tokensOf(l).has(token))
      return on.length > 0 && on.every((l) => l.hash === one.hash)
    }
    if (!isSo()) return false
  }
  return true
}

/** True when a mark changes how a link looks; undone before the page can see it. */
function shows(token: Token, drawn: readonly Holder[], holders: readonly Holder[]): boolean {
  if (holders.length < 2) return false
  if (token === ARIA) return usual(drawn).some((h) => styleShows('page', h.link))
  const { on, name } = partsOf(token)
  // The site's name among the links has no entry.
  const tried = drawn.filter((h) => on === 'link' || h.entry !== h.link).slice(0, MOST_TRIED)
  return underSheet('', () =>
    tried.some(({ link, entry }) => {
      const host = on === 'link' ? link : entry
      const had = host.getAttribute('class')
      const put = (is: boolean) => {
        host.classList.toggle(name, is)
        return `${lookOf(link)} ${lookOf(entry)}`
      }
      const differs = put(false) !== put(true)
      if (had === null) host.removeAttribute('class')
      else host.setAttribute('class', had)
      return differs
    }),
  )
}

/** Links checked per menu for its look. */
const MOST_TRIED = 4

/** Neither first nor last, which may be the site's name and a button. */
const usual = (drawn: readonly Holder[]): readonly Holder[] => (drawn.length > 2 ? drawn.slice(1, -1) : drawn).slice(0, MOST_TRIED)

function stylesThatShow(menu: Element, drawn: readonly Holder[]): MarkStyle[] {
  const had = menu.getAttribute(MENU)
  menu.setAttribute(MENU, had ?? '')
  // Another underline is no mark, even if thicker.
  const isUnderlined = usual(drawn).some(({ link }) => getComputedStyle(link).textDecorationLine.includes('underline'))
  const tells = (style: MarkStyle) => !isUnderlined || !/underline/.test(MARK_STYLES[style])
  const out = markStyles.filter((style) => tells(style) && usual(drawn).every((h) => styleShows(style, h.link)))
  if (had === null) menu.removeAttribute(MENU)
  return out
}

function styleShows(style: MarkStyle, link: HTMLAnchorElement): boolean {
  const had = link.getAttribute('aria-current')
  link.removeAttribute('aria-current')
  const before = underSheet('', () => lookOf(link))
  const rule = MARK_STYLES[style] ? markRule(style, `[${MENU}]`, 'a[aria-current="true"]') : ''
  const after = underSheet(rule, () => {
    link.setAttribute('aria-current', 'true')
    return lookOf(link)
  })
  if (had === null) link.removeAttribute('aria-current')
  else link.setAttribute('aria-current', had)
  return before !== after
}
