/** New versions of a page: compared with the present one, and taken over as one change. */
import { BadRequestException, Injectable } from '@nestjs/common'
import { parsePage, readParsed, reviewRevision, takeOver, type Decisions, type Revision } from '@waybell/core'
import { Store } from '../db/store.ts'
import { ChangesService, type ChangeOf } from './changes.service.ts'
import { putContent } from './content.ts'
import type { HandedIn } from './handed-in.ts'
import { SitesService } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'

export interface Review extends Revision {
  /** SHA-256 of the new version's bytes. */
  source: string
}

export interface Taking extends ChangeOf {
  source: string
  decisions: Decisions
}

@Injectable()
export class VersionsService {
  constructor(
    private readonly store: Store,
    private readonly sites: SitesService,
    private readonly changes: ChangesService,
    private readonly sources: SourcesService,
  ) {}

  /** Stores the new bytes and compares sections; the site doesn't change. @throws PageError */
  async review(site: string, key: string, files: readonly HandedIn[]): Promise<Review> {
    const html = files.filter((f) => /\.x?html?$/i.test(f.name))
    const given = html.length === 1 ? html[0] : files.length === 1 ? files[0] : undefined
    if (!given) throw new BadRequestException({ code: 'one-page', message: 'A new version is one HTML file; choose that alone.' })
    const { page } = await this.sites.page(site, key)
    const before = await this.sources.source(page)
    const parsed = parsePage(given.bytes)
    const after = { parsed, reading: readParsed(parsed, given.bytes.length, page.file) }
    const source = await this.store.change((db) => putContent(db, given.bytes))
    return { source, ...reviewRevision(page, before, after) }
  }

  async take(site: string, key: string, { source, decisions, ...of }: Taking): Promise<{ version: number }> {
    const { document, page } = await this.sites.page(site, key)
    const before = await this.sources.source(page)
    const after = await this.sources.source({ ...page, source })
    const command = takeOver(document, key, before, after, decisions, { source, title: after.reading.title })
    return this.changes.change(site, { ...of, command, undoes: null })
  }
}
