/** Takes a frame through its screens, and tries menu links when nothing else is needed. */
import type { FromAgent, SurveyRequest, ToAgent } from '@waybell/agent/types'
import {
  judgeTried,
  knownMenusOf,
  mayPass,
  type MeasuringTrouble,
  type PageEdit,
  type Screen,
  type SitePage,
  stopsElsewhere,
  type Survey,
  type Tried,
  triedTwice,
  viewportOf,
} from '@waybell/core'
import type { Channel } from './channel.ts'
import { emulatedOn } from './frame.ts'

export type MeasuringState = 'measuring' | 'done' | MeasuringTrouble

/** Tried menu links, by screen key. */
export type Tries = Readonly<Record<string, readonly Tried[]>>

/** What a frame measures, and who gets the results. */
export interface Surveying {
  screens: readonly Screen[]
  /** Key of the screen in view. */
  shown: string
  request: Omit<SurveyRequest, 'screen' | 'width' | 'height'>
  /** The same array until they change. */
  edits: readonly PageEdit[]
  /** The page that the edits belong to. */
  of: SitePage
  /** Keys of screens to measure; the others are prepared while idle. */
  stale: ReadonlySet<string>
  onSurvey: (survey: Survey, of: SitePage, on: Screen) => void
  onTried: (tried: Tries, of: SitePage) => void
  onState: (state: MeasuringState) => void
}

/** Max time for an answer before the page counts as silent, in ms; surveys take less than a tenth. */
const LONGEST = 45_000
/** A page loaded this often within this time, in ms, reloads itself endlessly. */
const MOST_LOADS = { count: 5, within: 30_000 }
/**
 * Other screens follow after this time without changes, in ms: the frame must be laid out again. No event tells that a designer stopped
 * dragging or typing.
 */
const BEHIND = 250
/** Links are tried after this time without changes, in ms. */
const IDLE = 1200
export const MOST_TRIED = 60
/** Max repeated measurements when tries differ. */
const MOST_ANEW = 2

/** The state a screen was measured in, and the result. */
interface Done {
  edits: readonly PageEdit[]
  request: Surveying['request']
  survey: Survey
}

/** Newer changes come first. */
export class Surveyor {
  isReady = false
  /** Screens by key and viewport. */
  private readonly probed = new Set<string>()
  private readonly done = new Map<string, Done>()
  /** The page's latest answers by screen and size; it doesn't repeat equal ones. */
  private readonly given = new Map<string, Survey>()
  /** The edits that the frame shows. */
  private sent = NOTHING
  /** The edits and screens of the tries, their results by screen key, and the page they were last reported for. */
  private tried: { edits: readonly PageEdit[] | null; screens: string; found: Tries; of: SitePage | null } = {
    edits: null,
    screens: '',
    found: {},
    of: null,
  }
  private isRunning = false
  private isChanged = false
  private onChange: () => void = () => {}
  /** Idle once: from now on visible frames come first. Before, measurements on other screens change what is asked. */
  private isMeasured = false
  isStopped = false
  /** Load times of the page, the latest last. */
  private loads: number[] = []
  private isRestless = false
  /** How often a screen was measured again because links stopped elsewhere. */
  private readonly remeasured = new Map<string, number>()
  /** It hasn't answered, and won't be reported again until it does. */
  private isSilent = false

  constructor(
    private readonly frame: HTMLIFrameElement,
    private readonly channel: Channel,
    private readonly props: () => Surveying,
  ) {
    this.take(this.inTurn()[0]!)
  }

  /** The page was loaded or reloaded. */
  begin(): void {
    if (this.isStopped) return
    this.isReady = true
    this.isSilent = false
    this.probed.clear()
    this.done.clear()
    this.given.clear()
    this.sent = NOTHING
    this.follow()
  }

  stop(): void {
    this.isStopped = true
    this.onChange()
  }

  /** Reported by the frame, whatever the page does. */
  loaded(): void {
    const now = performance.now()
    this.loads = [...this.loads.filter((at) => now - at < MOST_LOADS.within), now]
    if (this.loads.length < MOST_LOADS.count || this.isStopped) return
    this.stop()
    this.props().onState('reloads')
  }

  /** Something relevant may have changed. */
  follow(): void {
    this.isChanged = true
    this.onChange()
    if (this.isReady && !this.isRunning) void this.run()
  }

  private async run(): Promise<void> {
    this.isRunning = true
    try {
      do {
        while (this.isChanged && !this.isStopped) {
          this.isChanged = false
          await this.pass()
        }
        this.rest()
        await this.tryAll()
        this.isMeasured ||= !this.isChanged
        // It may have been silent before.
        this.rest()
      } while (this.isChanged && !this.isStopped)
    } catch {
      // A reloaded page reports itself, and is measured again.
      this.fallSilent()
    } finally {
      this.isRunning = false
    }
  }

  /** Tries menu links on every screen while nothing else is needed. */
  private async tryAll(): Promise<void> {
    const { of, stale, onTried } = this.props()
    // Measurements in any frame come first, and may change what is tried.
    if (stale.size) return
    // A page without set-up has only script-built links to try; one that works already has its own.
    if (!of.sections.length && !Object.values(this.known()).some((survey) => survey.built.menus.length))
      return onTried(Object.fromEntries(this.inTurn().map(({ key }) => [key, []])), of)
    const edits = this.sent
    const screens = this.inTurn().map(idOf).sort().join()
    if (this.tried.edits !== edits || this.tried.screens !== screens) {
      if (!(await this.isLeftAlone(IDLE))) return
      const found = await this.tryScreens()
      if (!found) return
      this.tried = { edits, screens, found, of: null }
    }
    // Valid while nothing visible changed.
    if (this.tried.of === of) return
    this.tried.of = of
    onTried(this.tried.found, of)
  }

  /** Null if interrupted. */
  private async tryScreens(): Promise<Record<string, readonly Tried[]> | null> {
    const all: Record<string, readonly Tried[]> = {}
    for (const screen of this.inTurn()) {
      this.take(screen)
      all[screen.key] = await this.tryLinks(screen)
      if (await this.isAnother(screen, all[screen.key]!)) all[screen.key] = await this.tryLinks(screen)
    }
    this.take(this.inTurn()[0]!)
    return this.isChanged || this.isStopped ? null : all
  }

  private async tryLinks(screen: Screen): Promise<Tried[]> {
    const found: Tried[] = []
    for (let place = 0; place < MOST_TRIED && !this.isChanged && !this.isStopped; place++) {
      const tried = await this.tryLink(screen, place)
      if (!tried) break
      found.push(tried)
    }
    return found
  }

  /** If links stop elsewhere, something may have loaded since: measures again, and returns true if the survey differs. */
  private async isAnother(screen: Screen, found: readonly Tried[]): Promise<boolean> {
    const id = idOf(screen)
    const known = this.done.get(id)
    const times = this.remeasured.get(id) ?? 0
    const { of, onSurvey } = this.props()
    if (!known || times >= MOST_ANEW || this.isChanged || this.isStopped) return false
    // A menu left open isn't part of the measured page.
    if (found.some((t) => t.leftOpen) || !judgeTried(of, known.survey, found).some(stopsElsewhere)) return false
    this.remeasured.set(id, times + 1)
    const survey = await this.read('remeasure', screen)
    if (survey === known.survey || !haveSameBoxes(survey, known.survey) || this.isChanged || this.isStopped) return false
    this.done.set(id, { ...known, survey })
    onSurvey(survey, of, screen)
    return true
  }

  private async tryLink(screen: Screen, place: number): Promise<Tried | null> {
    const known = this.known()
    const menus = knownMenusOf(this.props().of, known)
    const ask = (isPatient: boolean) => this.ask('tried', (turn) => ({ type: 'try', turn, place, isPatient, menus }))
    const survey = known[screen.key] ?? null
    const mayBeBusy = (tried: Tried) => !this.isChanged && mayPass(judgeTried(this.props().of, survey, [tried])[0]!)
    return triedTwice(async (isPatient) => (await ask(isPatient)).tried, mayBeBusy)
  }

  /** Surveys of the screens as they are, by key. */
  private known(): Record<string, Survey> {
    return Object.fromEntries(
      this.inTurn().flatMap((screen) => {
        const done = this.done.get(idOf(screen))
        return done ? [[screen.key, done.survey]] : []
      }),
    )
  }

  private async isLeftAlone(ms: number): Promise<boolean> {
    await Promise.race([pause(ms), new Promise<void>((done) => (this.onChange = done))])
    return !this.isChanged && !this.isStopped
  }

  /** The screen in view first. */
  private inTurn(): Screen[] {
    const { screens, shown } = this.props()
    return [...screens].sort((a, b) => Number(b.key === shown) - Number(a.key === shown))
  }

  private async pass(): Promise<void> {
    const { edits: wanted, of, request, stale, onSurvey, onState } = this.props()
    const edits = wanted.length ? wanted : NOTHING
    if (this.inTurn().some((s) => stale.has(s.key)) && !this.isSilent) onState('measuring')
    await this.probe(edits)
    if (edits !== this.sent) {
      // The visible frame shows an edit first.
      await (screensHold(this.props()) || !this.isMeasured ? frame() : pause(BEHIND))
      if (this.isChanged || this.isStopped) return
      await this.patch(edits)
    }
    let isBehind = !screensHold(this.props()) || !this.isMeasured
    for (const [n, screen] of this.inTurn().entries()) {
      if (this.isChanged || this.isStopped) return
      if (!stale.has(screen.key)) continue
      const known = this.done.get(idOf(screen))
      let survey = known?.survey
      if (known?.edits !== edits || known.request !== request) {
        if (n > 0 && !isBehind) {
          isBehind = true
          await pause(BEHIND)
        }
        if (this.isChanged || this.isStopped) return
        survey = await this.read('remeasure', screen)
        this.done.set(idOf(screen), { edits, request, survey })
      }
      if (!this.isStopped) onSurvey(survey!, of, screen)
    }
    this.take(this.inTurn()[0]!)
  }

  /** Header states are read without edits: on a new screen they're removed for that. */
  private async probe(edits: readonly PageEdit[]): Promise<void> {
    const unknown = this.inTurn().filter((s) => !this.probed.has(idOf(s)))
    if (unknown.length && this.sent !== NOTHING) await this.patch(NOTHING)
    for (const screen of unknown) {
      const { request, of, stale, onSurvey } = this.props()
      const survey = await this.read('probe', screen)
      if (this.isStopped) return
      this.probed.add(idOf(screen))
      if (edits !== NOTHING) continue
      this.done.set(idOf(screen), { edits, request, survey })
      if (stale.has(screen.key)) onSurvey(survey, of, screen)
    }
  }

  private async patch(edits: readonly PageEdit[]): Promise<void> {
    await this.ask('patched', (turn) => ({ type: 'patch', turn, edits: [...edits] }))
    this.sent = edits
  }

  /** Returns the previous object if nothing changed, so that nothing is recomputed. */
  private async read(type: 'probe' | 'remeasure', screen: Screen): Promise<Survey> {
    this.take(screen)
    const { key, width, height } = screen
    const request = { ...this.props().request, screen: key, width, height }
    const { survey, isRestless } = await this.ask('survey', (turn) => ({ type, turn, request, emulated: emulatedOn(screen) }))
    this.isRestless ||= isRestless
    const on = `${key} ${width} ${height}`
    const given = survey ?? this.given.get(on)
    if (!given) throw new Error('the page refers to a survey that it never sent')
    this.given.set(on, given)
    return given
  }

  /** A slow page is reported as silent, but still awaited. */
  private async ask<K extends FromAgent['type']>(kind: K, make: (turn: number) => ToAgent): Promise<Extract<FromAgent, { type: K }>> {
    const limit = setTimeout(() => this.fallSilent(), LONGEST)
    try {
      const answer = await this.channel.ask(kind, make)
      this.isSilent = false
      return answer
    } finally {
      clearTimeout(limit)
    }
  }

  private rest(): void {
    if (!this.isStopped) this.props().onState(this.isRestless ? 'restless' : 'done')
  }

  private fallSilent(): void {
    if (this.isStopped || !this.channel.isOpen) return
    this.isSilent = true
    this.props().onState('silent')
  }

  private take({ width, height }: Screen): void {
    this.frame.style.width = `${width}px`
    this.frame.style.height = `${height}px`
  }
}

/** True if the screen in view belongs to this frame. */
const screensHold = ({ screens, shown }: Surveying): boolean => screens.some((s) => s.key === shown)

const idOf = (screen: Screen): string => `${screen.key} ${viewportOf(screen)}`

const NOTHING: readonly PageEdit[] = []

/** One frame of the application, or a short pause if none is drawn, as in a hidden tab. */
const frame = () => Promise.race([new Promise((done) => requestAnimationFrame(done)), pause(100)])
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

/** Late content moves parts; appearing and vanishing ones are tabs of the page that links opened. */
const haveSameBoxes = ({ parts }: Survey, { parts: before }: Survey): boolean =>
  parts.length === before.length && parts.every(({ at, hasBox }, n) => before[n]!.at === at && before[n]!.hasBox === hasBox)
