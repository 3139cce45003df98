/** Syncs the other screens with the one in view: the same followed link, and the same place while scrolling. */
import { decodeFragment, matchingScroll, solveArrivals, type SitePage, type Survey, type Travelled } from '@waybell/core'

export interface Screens {
  page: SitePage
  /** Key of the screen in view. */
  shown: string
  surveys: Readonly<Record<string, Survey>>
  /** Keys of synced screens. */
  others: readonly string[]
}

interface Actions {
  scrollTo: (screen: string, y: number) => void
  follow: (screen: string, hash: string) => void
}

/** Interval of updates while scrolling, in ms. */
const OFTEN = 120
/** Max time of a smooth scroll, in ms. */
const WAY = 2500
/** An arrival may miss by this much; the others keep theirs for comparison. In px. */
const MISS = 200

export class ScreenSync {
  private timer: ReturnType<typeof setTimeout> | undefined
  private lateCheck: ReturnType<typeof setTimeout> | undefined
  /** A link that all screens followed, and where it arrived on the screen in view, while that stays there. */
  private goal: { screen: string; land: number | null; isThere: boolean; until: number } | null = null
  private at = { screen: '', y: 0 }
  private walks = 0
  private kept: { page: SitePage; by: Map<Survey, Travelled> } | null = null

  constructor(
    private readonly now: () => Screens,
    private readonly actions: Actions,
  ) {}

  /** The screen in view scrolled to `y`. */
  scrolled(y: number): void {
    this.at = { screen: this.now().shown, y }
    if (this.walks || this.isAtGoal(y)) return
    this.timer ??= setTimeout(() => this.move(), OFTEN)
  }

  /** A link was followed on the screen in view. */
  followed(hash: string): void {
    const { page, shown, surveys, others } = this.now()
    if (this.walks || !others.length) return
    const id = decodeFragment(hash.replace(/^#/, ''))
    const section = page.sections.find((s) => s.id === id || s.former.includes(id))
    const survey = surveys[shown]
    const arrival = section && survey ? this.travelled(survey).arrivals.find((a) => a.section === section.key) : undefined
    this.goal = {
      screen: shown,
      land: section ? (arrival?.land ?? null) : id === '' ? 0 : null,
      isThere: false,
      until: performance.now() + WAY,
    }
    // A visitor who scrolls elsewhere before the arrival sends no further events.
    clearTimeout(this.lateCheck)
    this.lateCheck = setTimeout(
      () => this.goal?.land != null && Math.abs(this.at.y - this.goal.land) > MISS && this.scrolled(this.at.y),
      WAY,
    )
    for (const screen of others) this.actions.follow(screen, hash)
  }

  /** Lets each screen move by itself for a while. @returns ends that */
  pause(): () => void {
    this.walks++
    clearTimeout(this.lateCheck)
    clearTimeout(this.timer)
    this.timer = undefined
    this.goal = null
    return () => {
      this.walks--
      // Afterwards the others come to where the screen in view is.
      if (!this.walks) this.timer ??= setTimeout(() => this.move(), OFTEN)
    }
  }

  private isAtGoal(y: number): boolean {
    if (this.goal?.screen !== this.now().shown) this.goal = null
    if (!this.goal) return false
    const { land, isThere, until } = this.goal
    if (land !== null && Math.abs(y - land) <= 1.5) return (this.goal.isThere = true)
    if (!isThere && performance.now() < until) return true
    this.goal = null
    return false
  }

  private move(): void {
    this.timer = undefined
    const { shown, surveys, others } = this.now()
    const from = surveys[shown]
    // Another screen may be in view by now, which stays where it is.
    if (!from || this.walks || this.goal || this.at.screen !== shown) return
    for (const screen of others) {
      const to = surveys[screen]
      if (to) this.actions.scrollTo(screen, matchingScroll(this.at.y, this.travelled(from), this.travelled(to)))
    }
  }

  private travelled(survey: Survey): Travelled {
    const { page } = this.now()
    if (this.kept?.page !== page) this.kept = { page, by: new Map() }
    const { by } = this.kept
    const known = by.get(survey) ?? { maxScroll: survey.maxScroll, arrivals: solveArrivals(page, survey) }
    by.set(survey, known)
    return known
  }
}
