/** Surveys of pages, stored with what they measured. */
import { Injectable } from '@nestjs/common'
import { byDecisions, layoutOf, surveyKey, upgradeSurvey, type Screen, type Site, type SitePage, type Survey } from '@waybell/core'
import { createHash } from 'node:crypto'
import { FileRow, SurveyRow } from '../db/entities.ts'
import { Store } from '../db/store.ts'
import { parseStored } from '../db/stored.ts'
import { SitesService } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'

/** A survey, and the key of its layout. */
export interface KeptSurvey {
  key: string
  scripts: boolean
  survey: Survey
}

export interface PutSurveys {
  source: string
  scripts: boolean
  surveys: { key: string; survey: Survey }[]
}

@Injectable()
export class SurveysService {
  constructor(
    private readonly store: Store,
    private readonly sites: SitesService,
    private readonly sources: SourcesService,
  ) {}

  /** @returns whether the page's reading changes with it */
  async put(site: string, key: string, { source, scripts, surveys }: PutSurveys): Promise<{ isReadAnew: boolean }> {
    const { page } = await this.sites.page(site, key)
    await this.store.change((db) =>
      db.upsert(
        SurveyRow,
        surveys.map(({ key: of, survey }) => ({
          site,
          page: key,
          screen: survey.screen,
          scripts,
          source,
          key: of,
          survey: JSON.stringify(survey),
        })),
        ['site', 'page', 'screen', 'scripts'],
      ),
    )
    const isReadAnew =
      scripts &&
      page.source === source &&
      this.sources.renew(
        page,
        surveys.map((s) => s.survey),
      )
    return { isReadAnew }
  }

  /** The latest of each screen, if they are of the present source. */
  async kept(site: string, key: string): Promise<KeptSurvey[]> {
    return this.keptOf(site, (await this.sites.page(site, key)).page)
  }

  private async keptOf(site: string, page: SitePage): Promise<KeptSurvey[]> {
    const rows = await this.store.read((db) => db.findBy(SurveyRow, { site, page: page.key, source: page.source }))
    return rows.flatMap((row) => {
      const survey = upgradeSurvey(parseStored(row.survey))
      return survey ? [{ key: row.key, scripts: row.scripts, survey }] : []
    })
  }

  /** Surveys with page scripts, as visitors have them, by screen; and which of them are up to date. */
  async forHandover(site: string, document: Site, page: SitePage): Promise<{ surveys: Record<string, Survey>; present: string[] }> {
    const kept = (await this.keptOf(site, page)).filter((k) => k.scripts)
    const { reading } = await this.sources.source(page)
    const layout = layoutOf({ page, pages: document.pages, reading, screens: document.screens })
    const assets = await this.assets(site)
    const keyOf = (screen: Screen) => surveyKey({ source: page.source, assets, screen, scripts: true, layout })
    const present = document.screens.filter((s) => kept.some((k) => k.survey.screen === s.key && k.key === keyOf(s)))
    const surveys = Object.fromEntries(kept.map(({ survey }) => [survey.screen, survey]))
    return { surveys: byDecisions(surveys, document.screens), present: present.map((s) => s.key) }
  }

  /** Identifies the state of all files that pages may load. */
  async assets(site: string): Promise<string> {
    const rows = await this.store.read((db) => db.find(FileRow, { where: { site }, order: { path: 'ASC' } }))
    return createHash('sha256')
      .update(JSON.stringify(rows.map(({ path, hash }) => [path, hash])))
      .digest('hex')
  }
}
