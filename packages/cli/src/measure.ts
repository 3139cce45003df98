/** Drives a page on all screens: loads it once, measures it, and tries its links. */
import { PageTrouble, type DrivenBrowser, type DrivenPage, type Mount, type PageAgent } from '@waybell/driver'
import {
  surveyRequest,
  triedTwice,
  type MeasuringTrouble,
  type PageEdit,
  type PageReading,
  type Screen,
  type Survey,
  type Tried,
} from '@waybell/core'
import { surveySchema } from '@waybell/core/schema'

type KnownMenus = Parameters<PageAgent['tryLink']>[2]

export class OpenPage {
  readonly troubles = new Set<MeasuringTrouble>()
  private readonly pages = new Map<string, Promise<DrivenPage>>()

  constructor(
    private readonly browser: DrivenBrowser,
    private readonly mount: Mount,
    private readonly screens: readonly Screen[],
  ) {}

  /** The page can't be driven on any screen. */
  get isOut(): boolean {
    return this.troubles.has('silent') || this.troubles.has('reloads')
  }

  /** Surveys by screen key, without screens that can't be measured. @param wait before measuring, in ms */
  async measure(reading: PageReading, wait: number): Promise<Record<string, Survey>> {
    return this.onScreens(async (agent, { key, width, height }) => {
      if (wait) await agent.pause(wait)
      const survey = await agent.probe({ screen: key, width, height, ...surveyRequest(reading) })
      // Pages aren't trusted, so neither are their measurements.
      if (surveySchema.validate(survey).error) throw new PageTrouble('silent')
      if (await agent.isRestless()) this.troubles.add('restless')
      return survey
    })
  }

  /**
   * All menu links, by screen key.
   * @param edits shown first; null if the page has them and must be loaded
   * @param wait after loading, in ms
   * @param mayPass true if a wrong link is worth another try
   */
  async tryLinks(
    edits: readonly PageEdit[] | null,
    known: KnownMenus,
    mayPass: (screen: Screen, tried: Tried) => boolean,
    wait = 0,
  ): Promise<Record<string, Tried[]>> {
    return this.onScreens(async (agent, screen) => {
      if (edits) await agent.patch([...edits])
      else if (wait) await agent.pause(wait)
      const all: Tried[] = []
      for (;;) {
        const one = await triedTwice(
          (isPatient) => agent.tryLink(all.length, isPatient, known),
          (tried) => mayPass(screen, tried),
        )
        if (!one) return all
        all.push(one)
      }
    })
  }

  async close(): Promise<void> {
    await Promise.all([...this.pages.values()].map((page) => page.then((p) => p.close()).catch(() => {})))
    this.pages.clear()
  }

  private async onScreens<T>(work: (agent: PageAgent, screen: Screen) => Promise<T>): Promise<Record<string, T>> {
    if (this.isOut) return {}
    const each = async (screen: Screen): Promise<[string, T][]> => {
      try {
        const page = await this.opened(screen)
        return [[screen.key, await page.run((agent) => work(agent, screen))]]
      } catch (error) {
        if (!(error instanceof PageTrouble)) throw error
        // The others were closed for it.
        if (!this.isOut) {
          this.troubles.add(error.kind)
          await this.close()
        }
        return []
      }
    }
    return Object.fromEntries((await Promise.all(this.screens.map(each))).flat())
  }

  private opened(screen: Screen): Promise<DrivenPage> {
    const known = this.pages.get(screen.key) ?? this.browser.open(this.mount, screen)
    this.pages.set(screen.key, known)
    return known
  }
}
