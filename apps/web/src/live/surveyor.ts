/** Takes a frame through the screens, one thing after the other, and has the links of the menus tried when nothing else is wanted of it. */
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

/** What became of the links of the menus, by screen key. */
export type Tries = Readonly<Record<string, readonly Tried[]>>

/** What a frame is to measure, and to whom it tells what it finds. */
export interface Surveying {
  screens: readonly Screen[]
  /** Key of the screen in view. */
  shown: string
  request: Omit<SurveyRequest, 'screen' | 'width' | 'height'>
  /** The same array until they are others. */
  edits: readonly PageEdit[]
  /** The page that the edits are of. */
  of: SitePage
  /** Keys of the screens that have to be measured; of others what an edit will need is prepared in quiet. */
  stale: ReadonlySet<string>
  onSurvey: (survey: Survey, of: SitePage, on: Screen) => void
  onTried: (tried: Tries, of: SitePage) => void
  onState: (state: MeasuringState) => void
}

/** How long an answer may take before the page is said to be silent, in ms: no survey takes a tenth of it. */
const LONGEST = 45_000
/** A page that was loaded so often within so long, in ms, loads itself without end. */
const MOST_LOADS = { count: 5, within: 30_000 }
/**
 * The screens out of view follow once nothing more was changed for this long, in ms: to get there a frame is laid out anew. No event tells
 * that a designer who drags or types has finished.
 */
const BEHIND = 250
/** Links are tried once nothing was changed for this long, in ms, and at most so many of them. */
const IDLE = 1200
export const MOST_TRIED = 60
/** What is another each time that it is tried is not measured for ever. */
const MOST_ANEW = 2

/** What a screen was measured under, and what came of it. */
interface Done {
  edits: readonly PageEdit[]
  request: Surveying['request']
  survey: Survey
}

/** What changed meanwhile is seen to before the rest. */
export class Surveyor {
  isReady = false
  /** Screens by key and viewport. */
  private readonly probed = new Set<string>()
  private readonly done = new Map<string, Done>()
  /** What the page gave last, by screen and size: it doesn't give the same again. */
  private readonly given = new Map<string, Survey>()
  /** The edits that the frame shows. */
  private sent = NOTHING
  /** The edits and screens under which the links were tried, what became of them by screen key, and the page of which that was told last. */
  private tried: { edits: readonly PageEdit[] | null; screens: string; found: Tries; of: SitePage | null } = {
    edits: null,
    screens: '',
    found: {},
    of: null,
  }
  private isRunning = false
  private isChanged = false
  private onChange: () => void = () => {}
  /** Nothing was wanted for a while: from then on what is looked at comes first. Before, what is measured on other screens changes what is asked here. */
  private isMeasured = false
  isStopped = false
  /** When the page was loaded last, the latest last. */
  private loads: number[] = []
  private isRestless = false
  /** How often a screen was measured again since links stopped elsewhere. */
  private readonly anew = new Map<string, number>()
  /** It was asked and has not answered: until it does, asking again is no news. */
  private isSilent = false

  constructor(
    private readonly frame: HTMLIFrameElement,
    private readonly channel: Channel,
    private readonly props: () => Surveying,
  ) {
    this.take(this.inTurn()[0]!)
  }

  /** The page has been loaded, or loaded anew. */
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

  /** The frame says so, whatever the page in it does. */
  loaded(): void {
    const now = performance.now()
    this.loads = [...this.loads.filter((at) => now - at < MOST_LOADS.within), now]
    if (this.loads.length < MOST_LOADS.count || this.isStopped) return
    this.stop()
    this.props().onState('reloads')
  }

  /** Something that bears on the results may have changed. */
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
        // It may have been silent meanwhile.
        this.rest()
      } while (this.isChanged && !this.isStopped)
    } catch {
      // A page that was loaded anew says so itself, and is measured again.
      this.fallSilent()
    } finally {
      this.isRunning = false
    }
  }

  /** Presses the links of the menus on every screen, for as long as nothing else is wanted of the frame. */
  private async tryAll(): Promise<void> {
    const { of, stale, onTried } = this.props()
    // What is still to be measured, in whichever frame, comes first, and may change what is tried.
    if (stale.size) return
    // A page that is not set up has nothing to try, but for what its scripts build; one that works already has, without an edit.
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
    // Where nothing that the page shows was changed since, they hold.
    if (this.tried.of === of) return
    this.tried.of = of
    onTried(this.tried.found, of)
  }

  /** Null where something else was wanted meanwhile. */
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

  /** Where links stop elsewhere than computed something may have come in since the page was measured: it is measured again, and true where it is another. */
  private async isAnother(screen: Screen, found: readonly Tried[]): Promise<boolean> {
    const id = idOf(screen)
    const known = this.done.get(id)
    const times = this.anew.get(id) ?? 0
    const { of, onSurvey } = this.props()
    if (!known || times >= MOST_ANEW || this.isChanged || this.isStopped) return false
    // A menu that was left open is none of the page as it is measured.
    if (found.some((t) => t.leftOpen) || !judgeTried(of, known.survey, found).some(stopsElsewhere)) return false
    this.anew.set(id, times + 1)
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

  /** What was measured of the screens as they are, by their keys. */
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
      // The frame that is looked at shows an edit first.
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

  /** The header's states are seen on the page as it came: on a screen that is new, what was patched is taken back for that. */
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

  /** The same object as before where nothing of it changed, so that nothing follows from it. */
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

  /** A page that takes too long is said to be silent, and is waited for all the same. */
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

/** The screen in view is among those of a frame. */
const screensHold = ({ screens, shown }: Surveying): boolean => screens.some((s) => s.key === shown)

const idOf = (screen: Screen): string => `${screen.key} ${viewportOf(screen)}`

const NOTHING: readonly PageEdit[] = []

/** One frame of the application's own, or a moment where none is drawn, as in a tab out of sight. */
const frame = () => Promise.race([new Promise((done) => requestAnimationFrame(done)), pause(100)])
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

/** What has come in moves parts; where some are gone, or there for the first time, following links has shown others of the page's tabs. */
const haveSameBoxes = ({ parts }: Survey, { parts: before }: Survey): boolean =>
  parts.length === before.length && parts.every(({ at, hasBox }, n) => before[n]!.at === at && before[n]!.hasBox === hasBox)
