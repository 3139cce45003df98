/** Sites: made from files, listed, read and removed. `changes.service.ts` changes them. */
import { ConflictException, Injectable, NotFoundException, type OnApplicationBootstrap } from '@nestjs/common'
import {
  DEFAULT_BREATHING,
  defaultRule,
  defaultScreens,
  pageOf,
  SITE_VERSION,
  type Command,
  type Screen,
  type Site,
  type SitePage,
  type Stacks,
} from '@waybell/core'
import { randomBytes } from 'node:crypto'
import { tellRead } from '../common/memory.ts'
import { StorageFailure } from '../db/failure.ts'
import { Store } from '../db/store.ts'
import { ChangeRow, FileRow, HandoverRow, SiteRow, SurveyRow } from '../db/entities.ts'
import { parseStored } from '../db/stored.ts'
import { ChangesService } from './changes.service.ts'
import { clearContent, contentOf, putContent } from './content.ts'
import { placeByName, type Import, type ImportedPage } from './import.ts'
import { siteRow } from './site-row.ts'
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
  /** Its first page, for the small picture. */
  file: string
  screen: Screen
  /** Milliseconds since 1970. */
  changedAt: number
  /** Unchanged since it was made. */
  isNew: boolean
  pages: number
  sections: number
  items: number
}

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

/** Options of a new site. */
export interface NewSite {
  name?: string
  scripts?: 'on' | 'off'
}

@Injectable()
export class SitesService implements OnApplicationBootstrap {
  constructor(
    private readonly store: Store,
    private readonly sources: SourcesService,
    private readonly changes: ChangesService,
  ) {}

  /** Removes content that no site uses; nothing else runs at the start. */
  async onApplicationBootstrap(): Promise<void> {
    await this.store
      .change((db) => clearContent(db))
      .catch((error: unknown) => {
        // Logged by the store. On a full disk this waits for the next start, and sites can still be read.
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

  /** Makes a site in one transaction. @param arrange gives its first document @throws PageError */
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

  /** Adds files to a page, and further pages to the site. Returns the keys of added pages. @throws PageError */
  async addFiles(key: string, pageKey: string, { pages, assets }: Import, tab: string | null): Promise<{ pages: string[] }> {
    const { added, version } = await this.store.change(async (db) => {
      const row = await siteRow(db, key)
      const site = parseStored<Site>(row.document)
      const known = pages.find((p) => site.pages.some((s) => s.file === p.file))
      if (known)
        throw new ConflictException({
          code: 'page-known',
          message: `The site already has the page “${known.file}”. To take over a changed one, use “Bring in a new version” on that page; to have both, give the file another name.`,
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
        ? await this.changes.commit(db, row, {
            command: { type: 'batch', label: commands.length === 1 ? 'Add a page' : `Add ${commands.length} pages`, commands },
            undoes: null,
            idempotencyKey: randomBytes(12).toString('hex'),
            tab,
          })
        : null
      return { added: commands.flatMap((c) => (c.type === 'page/add' ? c.page.key : [])), version }
    })
    if (version !== null) this.changes.announce(key, version)
    return { pages: added }
  }

  async get(key: string): Promise<SiteState> {
    const [row, undo, redo] = await this.store.read((db) =>
      Promise.all([siteRow(db, key), this.changes.stack(db, key, 'undo'), this.changes.stack(db, key, 'redo')]),
    )
    return { key, document: parseStored<Site>(row.document), version: row.version, stacks: { undo, redo } }
  }

  async drop(key: string): Promise<void> {
    await this.store.change(async (db) => {
      await siteRow(db, key)
      const content = await contentOf(db, key)
      await db.delete(SiteRow, { key })
      for (const table of [ChangeRow, FileRow, SurveyRow, HandoverRow]) await db.delete(table, { site: key })
      await clearContent(db, content)
    })
  }

  async page(site: string, page: string): Promise<{ document: Site; page: SitePage; version: number }> {
    const row = await this.store.read((db) => siteRow(db, site))
    const document = parseStored<Site>(row.document)
    const found = document.pages.find((p) => p.key === page)
    if (!found) throw new NotFoundException({ code: 'no-page', message: 'The site has no such page.' })
    return { document, page: found, version: row.version }
  }
}
