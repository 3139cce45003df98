/** Changes to sites. Each is one transaction: document, version, and a row in the log. */
import { ConflictException, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common'
import {
  apply,
  clash,
  CommandError,
  describe,
  elementsOf,
  STACK_PAGE,
  type Change,
  type Command,
  type Site,
  type SitePage,
  type StackName,
} from '@waybell/core'
import { concatMap, from, map, merge, Subject, type Observable } from 'rxjs'
import { LessThan, MoreThan, type EntityManager } from 'typeorm'
import { ChangeRow, ContentRow, SiteRow } from '../db/entities.ts'
import { Store } from '../db/store.ts'
import { parseStored } from '../db/stored.ts'
import { siteRow } from './site-row.ts'
import { SourcesService } from './sources.service.ts'

export interface SiteVersion {
  site: string
  version: number
}

export interface ChangeOf {
  idempotencyKey: string
  /** Version that the tab had read before the change. */
  baseVersion: number
  /** Null if no tab made it. */
  tab: string | null
}

export interface ChangeRequest extends ChangeOf {
  command: Command
  undoes: number | null
}

export interface LogEntry {
  version: number
  what: string
  at: number
  name: string | null
}

/** Max changes listed. */
const LOG_LENGTH = 2000

@Injectable()
export class ChangesService {
  private readonly changes$ = new Subject<SiteVersion>()

  constructor(
    private readonly store: Store,
    private readonly sources: SourcesService,
  ) {}

  /** Changes of a stack before a version, the latest last. */
  earlierChanges(key: string, name: StackName, before: number): Promise<Change[]> {
    return this.store.read(async (db) => {
      await siteRow(db, key)
      return this.stack(db, key, name, before)
    })
  }

  /** Stores a change. A request that is repeated after a lost answer changes nothing more. */
  async change(key: string, request: ChangeRequest): Promise<{ version: number }> {
    const version = await this.store.change(async (db) => {
      const row = await siteRow(db, key)
      const repeated = await db.findOneBy(ChangeRow, { site: key, idempotencyKey: request.idempotencyKey })
      if (repeated) return repeated.version
      await this.checkUnclashed(db, row, request)
      if (request.undoes !== null) await this.checkStands(db, key, request.undoes, request.command)
      await this.checkSources(db, request.command)
      return this.commit(db, row, request)
    })
    this.announce(key, version)
    return { version }
  }

  /** Writes one change within a transaction, and returns the new version. */
  async commit(db: EntityManager, row: SiteRow, request: Omit<ChangeRequest, 'baseVersion'>): Promise<number> {
    const { command, undoes, idempotencyKey, tab } = request
    const before = parseStored<Site>(row.document)
    const applied = this.applied(before, command)
    for (const page of applied.site.pages)
      await this.checkElements(
        db,
        before.pages.find((p) => p.key === page.key && p.source === page.source),
        page,
      )
    const version = row.version + 1
    const at = Date.now()
    const ofSite = { site: row.key }
    // Undoing an undo is an ordinary change.
    const isUndo = undoes !== null && (await db.existsBy(ChangeRow, { ...ofSite, version: undoes, stack: 'undo' }))
    await db.update(ChangeRow, { ...ofSite, ...(undoes === null ? { stack: 'redo' } : { version: undoes }) }, { stack: null })
    await db.insert(ChangeRow, {
      site: row.key,
      version,
      idempotencyKey,
      command: JSON.stringify(command),
      inverse: JSON.stringify(applied.inverse),
      undoes,
      stack: isUndo ? 'redo' : 'undo',
      tab,
      at,
    })
    await db.update(SiteRow, { key: row.key }, { document: JSON.stringify(applied.site), version, changedAt: at })
    return version
  }

  /** The latest changes, newest first. */
  async log(key: string): Promise<LogEntry[]> {
    const rows = await this.store.read(async (db) => {
      await siteRow(db, key)
      return db.find(ChangeRow, { where: { site: key }, order: { version: 'DESC' }, take: LOG_LENGTH })
    })
    return rows.map(({ version, command, undoes, at, name }) => ({
      version,
      what: (undoes === null ? '' : 'Undo or redo: ') + describe(parseStored<Command>(command)),
      at,
      name,
    }))
  }

  async nameState(key: string, version: number, name: string): Promise<void> {
    const { affected } = await this.store.change((db) => db.update(ChangeRow, { site: key, version }, { name: name.trim() || null }))
    if (!affected) throw new NotFoundException({ code: 'no-version', message: 'The site has no such change.' })
  }

  /** Undoes everything after `version` as one change, which can be undone itself. */
  async goBack(key: string, { version, ...of }: ChangeOf & { version: number }): Promise<{ version: number }> {
    const [rows, then] = await this.store.read(
      async (db) =>
        [
          await db.find(ChangeRow, { where: { site: key, version: MoreThan(version) }, order: { version: 'DESC' } }),
          await db.findOneBy(ChangeRow, { site: key, version }),
        ] as const,
    )
    const commands = rows.map((r) => parseStored<Command>(r.inverse))
    if (!commands.length) throw new NotFoundException({ code: 'no-version', message: 'The site is already in that state.' })
    const at = new Date(then?.at ?? rows.at(-1)!.at)
    const label = `Go back to ${at.toISOString().slice(0, 16).replace('T', ' ')} UTC`
    return this.change(key, { ...of, command: { type: 'batch', label, commands }, undoes: null })
  }

  /** Versions of all sites: now, and after every change. */
  versions(): Observable<{ data: SiteVersion }> {
    const now = this.store.read((db) => db.find(SiteRow, { select: { key: true, version: true } }))
    return merge(from(now).pipe(concatMap((rows) => rows.map(({ key, version }) => ({ site: key, version })))), this.changes$).pipe(
      map((data) => ({ data })),
    )
  }

  private applied(site: Site, command: Command) {
    try {
      return apply(site, command)
    } catch (error) {
      if (error instanceof CommandError) throw new UnprocessableEntityException({ code: 'command', message: error.message })
      throw error
    }
  }

  /** Refuses a change that clashes with one another tab made in the meantime. */
  private async checkUnclashed(db: EntityManager, row: SiteRow, { baseVersion, tab, command }: ChangeRequest): Promise<void> {
    const since = await db.findBy(ChangeRow, { site: row.key, version: MoreThan(baseVersion) })
    const isClash = since.some((c) => (tab === null || c.tab !== tab) && clash(parseStored<Command>(c.command), command))
    if (baseVersion > row.version || isClash)
      throw new ConflictException({
        code: 'conflict',
        message: 'Another tab changed this at the same time, and its change was kept. Make yours again if you still want it.',
      })
  }

  /** Refuses an undo of a change that is undone already, or that a later change builds on. */
  private async checkStands(db: EntityManager, site: string, undoes: number, command: Command): Promise<void> {
    const taken = await db.findOneBy(ChangeRow, { site, version: undoes })
    if (!taken?.stack)
      throw new ConflictException({
        code: 'taken-back',
        message: 'Another tab was first: this was already undone, redone or replaced. Nothing changed.',
      })
    const later = await db.findBy(ChangeRow, { site, version: MoreThan(undoes), stack: 'undo' })
    // Changes undone after it are redone before it.
    const isBefore = (c: ChangeRow) => taken.stack === 'redo' && c.undoes !== null && c.undoes > undoes
    if (later.some((c) => !isBefore(c) && clash(parseStored<Command>(c.command), command)))
      throw new ConflictException({
        code: 'built-upon',
        message: 'Can’t undo or redo this: a later change builds on it. Nothing changed.',
      })
  }

  /** Refuses a page whose source isn't stored. */
  private async checkSources(db: EntityManager, command: Command): Promise<void> {
    if (command.type === 'batch') for (const c of command.commands) await this.checkSources(db, c)
    const source = command.type === 'page/revise' ? command.revision.source : command.type === 'page/add' ? command.page.source : null
    if (source !== null && !(await db.existsBy(ContentRow, { hash: source })))
      throw new UnprocessableEntityException({
        code: 'no-source',
        message: 'This page’s file is missing; bring it in again.',
      })
  }

  /** Refuses elements that the page's source doesn't have: they couldn't be handed over. */
  private async checkElements(db: EntityManager, before: SitePage | undefined, page: SitePage): Promise<void> {
    if (before === page) return
    const known = before ? elementsOf(before) : new Set()
    const added = [...elementsOf(page)].filter((at) => !known.has(at))
    if (!added.length) return
    const { parsed } = await this.sources.source(page, db)
    for (const at of added)
      if (!parsed.byAt.has(at))
        throw new UnprocessableEntityException({
          code: 'no-element',
          message: `Nothing of this was stored: “${page.file}” has no element at character ${at} of its source.`,
        })
  }

  async stack(db: EntityManager, site: string, stack: StackName, before?: number): Promise<Change[]> {
    const where = { site, stack, ...(before !== undefined && { version: LessThan(before) }) }
    const rows = await db.find(ChangeRow, { where, order: { version: 'DESC' }, take: STACK_PAGE })
    return rows.reverse().map(({ version, command, inverse, undoes, tab }) => ({
      version,
      undoes,
      tab,
      command: parseStored<Command>(command),
      inverse: parseStored<Command>(inverse),
    }))
  }

  /** Tells open tabs of a site's new version. */
  announce(site: string, version: number): void {
    this.changes$.next({ site, version })
  }
}
