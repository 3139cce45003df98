/** Details for the list of sites that need its pages: open findings, and the last handover. */
import { Injectable } from '@nestjs/common'
import { knownOutside, openFindings, type Site, type SitePage } from '@waybell/core'
import { HandoverService, type HandedOver } from './handover.service.ts'
import { SitesService } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'
import { SurveysService } from './surveys.service.ts'

export interface Overview {
  /** Open findings of all pages, as last measured; without those that only tried links show. */
  findings: number
  /** Milliseconds since 1970; null if never handed over. */
  handedOverAt: number | null
}

@Injectable()
export class OverviewService {
  constructor(
    private readonly sites: SitesService,
    private readonly sources: SourcesService,
    private readonly surveys: SurveysService,
    private readonly handovers: HandoverService,
  ) {}

  async of(key: string): Promise<Overview> {
    const { document } = await this.sites.get(key)
    let [findings, handedOverAt]: [number, number | null] = [0, null]
    for (const page of document.pages) {
      const handedOver = await this.handovers.handedOver(key, page.key)
      const last = handedOver[0]?.at ?? null
      if (last !== null) handedOverAt = Math.max(handedOverAt ?? 0, last)
      if (page.sections.length) findings += await this.count(key, document, page, handedOver)
    }
    return { findings, handedOverAt }
  }

  private async count(key: string, site: Site, page: SitePage, handedOver: readonly HandedOver[]): Promise<number> {
    const { reading, undeclared, named, findings } = await this.sources.state(key, page)
    const { surveys } = await this.surveys.forHandover(key, site, page)
    const known = knownOutside(reading, handedOver)
    const facts = { site, page, reading, undeclared: new Set(undeclared), named, known, surveys, tried: {}, trouble: null }
    return openFindings(facts, findings).length
  }
}
