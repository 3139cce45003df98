/** Sites: made from files, changed by commands. Every change is one transaction. */
import { ConflictException, Injectable, NotFoundException, UnprocessableEntityException, type OnApplicationBootstrap } from '@nestjs/common'
import {
  apply,
  clash,
  CommandError,
  DEFAULT_BREATHING,
  defaultRule,
  defaultScreens,
  describe,
  elementsOf,
  pageOf,
  SITE_VERSION,
  STACK_PAGE,
  type Change,
  type Command,
  type Screen,
  type Site,
  type SitePage,
  type StackName,
  type Stacks,
} from '@waybell/core'
import { randomBytes } from 'node:crypto'
import { concatMap, from, map, merge, Subject, type Observable } from 'rxjs'
import { LessThan, MoreThan, type EntityManager } from 'typeorm'
import { tellRead } from '../common/memory.ts'
import { StorageFailure } from '../db/failure.ts'
import { Store } from '../db/store.ts'
import { ChangeRow, ContentRow, FileRow, HandoverRow, SiteRow, SurveyRow } from '../db/entities.ts'
import { parseStored } from '../db/stored.ts'
import { clearContent, contentOf, putContent } from './content.ts'
import { placeByName, type Import, type ImportedPage } from './import.ts'
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
  /** Its first page, as it is shown small. */
  file: string
  screen: Screen
  /** Milliseconds since 1970. */
  changedAt: number
  /** Nothing was changed since it was made. */
  isNew: boolean
  pages: number
  sections: number
  items: number
}

export interface SiteVersion {
  site: string
  version: number
}

export interface ChangeOf {
  idempotencyKey: string
  /** Version that the tab had read when it made the change. */
  baseVersion: number
  /** Null where no tab made it. */
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

/** How many changes are listed. */
const LOG_LENGTH = 2000

const freshPage = (key: string, { file, reading }: ImportedPage, source: string): SitePage => ({
  key,
  file,
  source,
  title: reading.title,
  sections: [],
  menus: [],
  header: null,
  travel: { smooth: true, breathing: DEFAULT_BREATHING },
  highlight: { bellOffset: DEFAULT_BREATHING },
})

/** What is said of a site when its first page is brought in. */
export interface NewSite {
  name?: string
  scripts?: 'on' | 'off'
}

@Injectable()
export class SitesService implements OnApplicationBootstrap {
  private readonly changes$ = new Subject<SiteVersion>()

  constructor(
    private readonly store: Store,
    private readonly sources: SourcesService,
  ) {}

  /** At the start nobody is in the middle of anything: what no site has is left over. */
  async onApplicationBootstrap(): Promise<void> {
    await this.store
      .change((db) => clearContent(db))
      .catch((error: unknown) => {
        // The store has said so in its log. On a disk that is full it waits for the next start; the sites can be looked at meanwhile.
        if (!(error instanceof StorageFailure)) throw error
      })
  }

  async list(): Promise<SiteSummary[]> {
    const rows = await this.store.read((db) => db.find(SiteRow, { order: { changedAt: 'DESC' } }))
    return rows.map((row) => {
      const site = parseStored<Site>(row.document)
      return {
        key: row.key,
        name: site.name,
        file: site.pages[0]!.file,
        screen: site.screens[0]!,
        changedAt: row.changedAt,
        isNew: row.version === 0,
        pages: site.pages.length,
        sections: site.pages.reduce((n, p) => n + p.sections.length, 0),
        items: site.pages.reduce((n, p) => n + p.menus.reduce((m, menu) => m + menu.items.length, 0), 0),
      }
    })
  }

  /** All or nothing: a page that cannot be read leaves nothing behind. @param arrange what the site begins with @throws PageError */
  async create(
    { pages, assets }: Import,
    { name, scripts }: NewSite = {},
    arrange: (site: Site) => Site = (site) => site,
  ): Promise<{ key: string }> {
    const key = randomBytes(6).toString('hex')
    tellRead([...pages, ...[...assets.values()].map((bytes) => ({ bytes }))].reduce((sum, { bytes }) => sum + bytes.length, 0))
    await this.store.change(async (db) => {
      const site: Site = {
        format: 'way-bell-site',
        version: SITE_VERSION,
        name: name?.trim() || pages[0]!.reading.title || pages[0]!.file,
        rule: defaultRule,
        screens: defaultScreens,
        pages: [],
        ...(scripts === 'off' ? { scripts: false as const } : {}),
      }
      for (const [i, page] of pages.entries()) site.pages.push(freshPage(`p${i + 1}`, page, await putContent(db, page.bytes)))
      for (const [path, bytes] of assets) await db.insert(FileRow, { site: key, path, hash: await putContent(db, bytes) })
      await db.insert(SiteRow, { key, document: JSON.stringify(arrange(site)), version: 0, changedAt: Date.now() })
    })
    return { key }
  }

  /** Files for a page, and further pages. @returns the keys of the pages that were added @throws PageError */
  async addFiles(key: string, pageKey: string, { pages, assets }: Import, tab: string | null): Promise<{ pages: string[] }> {
    const { added, version } = await this.store.change(async (db) => {
      const row = await this.row(db, key)
      const site = parseStored<Site>(row.document)
      const known = pages.find((p) => site.pages.some((s) => s.file === p.file))
      if (known)
        throw new ConflictException({
          code: 'page-known',
          message: `The site already has the page “${known.file}” already. To take over a changed one, use “Bring in a new version” on that page; to have both, give the file another name.`,
        })
      const { reading } = await this.sources.source(pageOf(site, pageKey), db)
      for (const [path, bytes] of placeByName({ file: pageOf(site, pageKey).file, reading }, assets))
        await db.upsert(FileRow, { site: key, path, hash: await putContent(db, bytes) }, ['site', 'path'])
      const taken = new Set(site.pages.map((p) => p.key))
      const commands: Command[] = []
      for (const page of pages) {
        let n = taken.size + 1
        while (taken.has(`p${n}`)) n++
        taken.add(`p${n}`)
        commands.push({
          type: 'page/add',
          page: freshPage(`p${n}`, page, await putContent(db, page.bytes)),
          index: site.pages.length + commands.length,
        })
      }
      const version = commands.length
        ? await this.commit(db, row, {
            command: { type: 'batch', label: commands.length === 1 ? 'Add a page' : `Add ${commands.length} pages`, commands },
            undoes: null,
            idempotencyKey: randomBytes(12).toString('hex'),
            tab,
          })
        : null
      return { added: commands.flatMap((c) => (c.type === 'page/add' ? c.page.key : [])), version }
    })
    if (version !== null) this.changes$.next({ site: key, version })
    return { pages: added }
  }

  async get(key: string): Promise<SiteState> {
    const [row, undo, redo] = await this.store.read((db) =>
      Promise.all([this.row(db, key), this.stack(db, key, 'undo'), this.stack(db, key, 'redo')]),
    )
    return { key, document: parseStored<Site>(row.document), version: row.version, stacks: { undo, redo } }
  }

  /** Of a stack, those before a version, the latest last. */
  earlierChanges(key: string, name: StackName, before: number): Promise<Change[]> {
    return this.store.read(async (db) => {
      await this.row(db, key)
      return this.stack(db, key, name, before)
    })
  }

  async drop(key: string): Promise<void> {
    await this.store.change(async (db) => {
      await this.row(db, key)
      const content = await contentOf(db, key)
      await db.delete(SiteRow, { key })
      for (const table of [ChangeRow, FileRow, SurveyRow, HandoverRow]) await db.delete(table, { site: key })
      await clearContent(db, content)
    })
  }

  /** The same request again, after a lost answer, changes nothing more. */
  async change(key: string, request: ChangeRequest): Promise<{ version: number }> {
    const version = await this.store.change(async (db) => {
      const row = await this.row(db, key)
      const repeated = await db.findOneBy(ChangeRow, { site: key, idempotencyKey: request.idempotencyKey })
      if (repeated) return repeated.version
      await this.checkUnclashed(db, row, request)
      if (request.undoes !== null) await this.checkStands(db, key, request.undoes, request.command)
      await this.checkSources(db, request.command)
      return this.commit(db, row, request)
    })
    this.changes$.next({ site: key, version })
    return { version }
  }

  /** One change: document, version, and a row in the log. */
  private async commit(db: EntityManager, row: SiteRow, request: Omit<ChangeRequest, 'baseVersion'>): Promise<number> {
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
    // One that takes back what took something back is a change like any other.
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

  /** Changes, the latest first, as far as they are listed. */
  async log(key: string): Promise<LogEntry[]> {
    const rows = await this.store.read(async (db) => {
      await this.row(db, key)
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

  /** Takes back everything after `version`, as one change that can be taken back itself. */
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

  /** The versions of all sites, now and after every change, wherever that came from. */
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

  /** What another tab changed meanwhile stands; a change that does not touch it is put on top, one that does is refused. */
  private async checkUnclashed(db: EntityManager, row: SiteRow, { baseVersion, tab, command }: ChangeRequest): Promise<void> {
    const since = await db.findBy(ChangeRow, { site: row.key, version: MoreThan(baseVersion) })
    const isClash = since.some((c) => (tab === null || c.tab !== tab) && clash(parseStored<Command>(c.command), command))
    if (baseVersion > row.version || isClash)
      throw new ConflictException({
        code: 'conflict',
        message: 'Another tab changed this at the same time, and its change was kept. Make yours again if you still want it.',
      })
  }

  /** What is taken back is not taken back already, and nothing that was done on top of it stands. */
  private async checkStands(db: EntityManager, site: string, undoes: number, command: Command): Promise<void> {
    const taken = await db.findOneBy(ChangeRow, { site, version: undoes })
    if (!taken?.stack)
      throw new ConflictException({
        code: 'taken-back',
        message: 'Another tab was first: this was already undone, redone or replaced. Nothing changed.',
      })
    const later = await db.findBy(ChangeRow, { site, version: MoreThan(undoes), stack: 'undo' })
    // What was undone after it is redone before it.
    const isBefore = (c: ChangeRow) => taken.stack === 'redo' && c.undoes !== null && c.undoes > undoes
    if (later.some((c) => !isBefore(c) && clash(parseStored<Command>(c.command), command)))
      throw new ConflictException({
        code: 'built-upon',
        message: 'Can’t undo or redo this: a later change builds on it. Nothing changed.',
      })
  }

  /** A page can only be of bytes that are here. */
  private async checkSources(db: EntityManager, command: Command): Promise<void> {
    if (command.type === 'batch') for (const c of command.commands) await this.checkSources(db, c)
    const source = command.type === 'page/revise' ? command.revision.source : command.type === 'page/add' ? command.page.source : null
    if (source !== null && !(await db.existsBy(ContentRow, { hash: source })))
      throw new UnprocessableEntityException({
        code: 'no-source',
        message: 'This page’s file is missing; bring it in again.',
      })
  }

  /** What a page's document newly speaks of stands in its source: a section that is no element could not be handed over. */
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

  private async stack(db: EntityManager, site: string, stack: StackName, before?: number): Promise<Change[]> {
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

  private async row(db: EntityManager, key: string): Promise<SiteRow> {
    const row = await db.findOneBy(SiteRow, { key })
    if (!row) throw new NotFoundException({ code: 'no-site', message: 'There is no such site; it may have been removed.' })
    return row
  }

  async page(site: string, page: string): Promise<{ document: Site; page: SitePage; version: number }> {
    const row = await this.store.read((db) => this.row(db, site))
    const document = parseStored<Site>(row.document)
    const found = document.pages.find((p) => p.key === page)
    if (!found) throw new NotFoundException({ code: 'no-page', message: 'The site has no such page.' })
    return { document, page: found, version: row.version }
  }
}
