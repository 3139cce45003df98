/** Sites: made from files, changed by commands. Every change is one transaction. */
import { ConflictException, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common'
import { InjectDataSource } from '@nestjs/typeorm'
import {
  afterChange,
  apply,
  clash,
  CommandError,
  defaultRule,
  defaultScreens,
  emptyStacks,
  pageOf,
  type Change,
  type Command,
  type Site,
  type SitePage,
  type Stacks,
  type Survey,
} from '@waybell/core'
import { randomBytes } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import { ChangeRow, FileRow, SiteRow, SurveyRow } from '../db/entities.ts'
import { putContent } from './content.ts'
import { placeByName, readImport, type HandedIn } from './import.ts'
import { SourcesService } from './sources.service.ts'

export interface SiteState {
  key: string
  document: Site
  version: number
  stacks: Stacks
}

export interface SiteSummary {
  key: string
  name: string
  changedAt: number
  title: string
  sections: number
  items: number
}

export interface ChangeRequest {
  idempotencyKey: string
  /** Version that the sender had before this change. */
  baseVersion: number
  command: Command
  undoes: number | null
}

/** How far back undo reaches. */
const UNDO_DEPTH = 300

@Injectable()
export class SitesService {
  constructor(
    @InjectDataSource() private readonly db: DataSource,
    private readonly sources: SourcesService,
  ) {}

  async list(): Promise<SiteSummary[]> {
    const rows = await this.db.manager.find(SiteRow, { order: { changedAt: 'DESC' } })
    return rows.map((row) => {
      const site = JSON.parse(row.document) as Site
      return {
        key: row.key,
        name: site.name,
        changedAt: row.changedAt,
        title: site.pages[0]?.title ?? '',
        sections: site.pages.reduce((n, p) => n + p.sections.length, 0),
        items: site.pages.reduce((n, p) => n + p.menus.reduce((m, menu) => m + menu.items.length, 0), 0),
      }
    })
  }

  /** All or nothing: a page that cannot be read leaves nothing behind. @throws PageError */
  async create(files: readonly HandedIn[], name?: string): Promise<{ key: string }> {
    const { file, page, reading, assets } = readImport(files)
    const key = randomBytes(6).toString('hex')
    await this.db.transaction(async (db) => {
      const source = await putContent(db, page)
      for (const [path, bytes] of assets) await db.insert(FileRow, { site: key, path, hash: await putContent(db, bytes) })
      const first: SitePage = {
        key: 'p1',
        file,
        source,
        title: reading.title,
        sections: [],
        menus: [],
        header: null,
        bar: 'top',
        travel: { smooth: true, breathing: 24 },
        highlight: { bellOffset: 24 },
      }
      const site: Site = {
        format: 'way-bell-site',
        version: 2,
        name: name?.trim() || reading.title || file,
        rule: defaultRule,
        screens: defaultScreens,
        pages: [first],
      }
      await db.insert(SiteRow, { key, document: JSON.stringify(site), version: 0, changedAt: Date.now() })
    })
    return { key }
  }

  async addFiles(key: string, pageKey: string, files: readonly HandedIn[]): Promise<void> {
    const { document } = await this.get(key)
    const { reading } = await this.sources.source(pageOf(document, pageKey))
    const given = new Map(files.flatMap((f) => [[f.name.replace(/\\/g, '/').replace(/^\/+/, ''), f.bytes] as const]).filter(([path]) => !path.split('/').includes('..')))
    await this.db.transaction(async (db) => {
      for (const [path, bytes] of placeByName(reading, given)) await db.save(FileRow, { site: key, path, hash: await putContent(db, bytes) })
    })
  }

  async get(key: string): Promise<SiteState> {
    const row = await this.row(this.db.manager, key)
    const changes = await this.changes(this.db.manager, key)
    const stacks = changes.reduce(afterChange, emptyStacks)
    return { key, document: JSON.parse(row.document) as Site, version: row.version, stacks }
  }

  async drop(key: string): Promise<void> {
    await this.db.transaction(async (db) => {
      await this.row(db, key)
      await db.delete(SiteRow, { key })
      for (const table of [ChangeRow, FileRow, SurveyRow]) await db.delete(table, { site: key })
    })
  }

  /** The same request again, after a lost answer, changes nothing more. */
  async change(key: string, request: ChangeRequest): Promise<{ version: number }> {
    return this.db.transaction(async (db) => {
      const row = await this.row(db, key)
      const repeated = await db.findOneBy(ChangeRow, { site: key, idempotencyKey: request.idempotencyKey })
      if (repeated) return { version: repeated.version }
      await this.checkUnclashed(db, row, request)
      const applied = this.applied(JSON.parse(row.document) as Site, request.command)
      const version = row.version + 1
      const at = Date.now()
      await db.insert(ChangeRow, {
        site: key,
        version,
        idempotencyKey: request.idempotencyKey,
        command: JSON.stringify(request.command),
        inverse: JSON.stringify(applied.inverse),
        undoes: request.undoes,
        at,
      })
      await db.update(SiteRow, { key }, { document: JSON.stringify(applied.site), version, changedAt: at })
      return { version }
    })
  }

  private applied(site: Site, command: Command) {
    try {
      return apply(site, command)
    } catch (error) {
      if (error instanceof CommandError) throw new UnprocessableEntityException({ code: 'command', message: error.message })
      throw error
    }
  }

  /** What another tab changed meanwhile stands; a change that does not touch it is put on top, one that does is told. */
  private async checkUnclashed(db: EntityManager, row: SiteRow, { baseVersion, command }: ChangeRequest): Promise<void> {
    if (baseVersion === row.version) return
    const since = (await this.changes(db, row.key)).filter((c) => c.version > baseVersion)
    if (baseVersion > row.version || since.length < row.version - baseVersion || since.some((c) => clash(c.command, command)))
      throw new ConflictException({
        code: 'conflict',
        message: 'This was changed in another tab at the same time. The other change stands; look at it, and make yours again if you still want it.',
      })
  }

  private async changes(db: EntityManager, site: string): Promise<Change[]> {
    const rows = await db.find(ChangeRow, { where: { site }, order: { version: 'DESC' }, take: UNDO_DEPTH })
    return rows.reverse().map(({ version, command, inverse, undoes }) => ({ version, undoes, command: JSON.parse(command) as Command, inverse: JSON.parse(inverse) as Command }))
  }

  private async row(db: EntityManager, key: string): Promise<SiteRow> {
    const row = await db.findOneBy(SiteRow, { key })
    if (!row) throw new NotFoundException({ code: 'no-site', message: 'There is no such site; it may have been dropped.' })
    return row
  }

  async putSurveys(site: string, page: string, source: string, surveys: readonly Survey[]): Promise<void> {
    await this.row(this.db.manager, site)
    await this.db.manager.save(
      SurveyRow,
      surveys.map((survey) => ({ site, page, screen: survey.screen, source, survey: JSON.stringify(survey) })),
    )
  }

  /** By screen; only those of the page's present source. */
  async surveys(site: string, page: SitePage): Promise<Record<string, Survey>> {
    const rows = await this.db.manager.findBy(SurveyRow, { site, page: page.key, source: page.source })
    return Object.fromEntries(rows.map((r) => [r.screen, JSON.parse(r.survey) as Survey]))
  }

  async page(site: string, page: string): Promise<{ document: Site; page: SitePage }> {
    const { document } = await this.get(site)
    const found = document.pages.find((p) => p.key === page)
    if (!found) throw new NotFoundException({ code: 'no-page', message: 'The site has no such page.' })
    return { document, page: found }
  }
}
