/** The handed-over page: as bytes, as a list of its edits, and in a ZIP with its assets. */
import { Injectable, Logger } from '@nestjs/common'
import { pageEdits, textOfBytes, writePage, type Handover, type ScriptPart, type SitePage } from '@waybell/core'
import { scriptIn, sizesOf, type ScriptForm } from '@waybell/runtime'
import { ZipFile } from 'yazl'
import { Store } from '../db/store.ts'
import { FileRow, HandoverRow } from '../db/entities.ts'
import { StorageFailure } from '../db/failure.ts'
import { getContent } from './content.ts'
import { SitesService } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'
import { SurveysService } from './surveys.service.ts'

export interface HandoverView {
  file: string
  bytes: number
  /** Screens that were measured; the others are estimated. */
  measured: string[]
  edits: { offset: number; removed: string; inserted: string }[]
  /** Sizes of the script in bytes, by the form that it may have; null where the page needs none. */
  script: Record<ScriptForm, { bytes: number; packed: number }> | null
}

interface Made {
  page: SitePage
  handover: Handover
  encoding: string
  measured: string[]
  /** Of the script; null where none is written. */
  parts: readonly ScriptPart[] | null
}

/** A page taken home: when, in which version of the site, and which IDs somebody may link to from then on. */
export interface HandedOver {
  at: number
  version: number
  ids: string[]
}

@Injectable()
export class HandoverService {
  private readonly log = new Logger('handover')

  constructor(
    private readonly store: Store,
    private readonly sites: SitesService,
    private readonly sources: SourcesService,
    private readonly surveys: SurveysService,
  ) {}

  async page(site: string, key: string, form: ScriptForm): Promise<Made> {
    const { document, page } = await this.sites.page(site, key)
    const { bytes, parsed, reading } = await this.sources.source(page)
    const { surveys, present } = await this.surveys.forHandover(site, key)
    let parts: readonly ScriptPart[] | null = null
    // A page that nobody set up goes as it came.
    const edits = !page.sections.length
      ? []
      : pageEdits({
          page,
          pages: document.pages,
          ...(document.address?.isWritten && { address: document.address.url }),
          reading,
          screens: document.screens,
          surveys,
          named: await this.sources.namedInStyles(site, page),
          runtime: (those) => scriptIn(form)((parts = those)),
        })
    return { page, handover: writePage(bytes, parsed, edits), encoding: parsed.decoded.encoding, measured: present, parts }
  }

  async view(site: string, key: string, form: ScriptForm): Promise<HandoverView> {
    const { page, handover, encoding, measured, parts } = await this.page(site, key, form)
    return {
      file: page.file,
      bytes: handover.bytes.length,
      measured,
      edits: handover.splices.map((s) => ({
        offset: s.offset,
        removed: textOfBytes(encoding, s.removed),
        inserted: textOfBytes(encoding, s.inserted),
      })),
      script: parts && sizesOf(parts),
    }
  }

  /** Takes the page home: what it held is remembered. */
  async taken(site: string, key: string, form: ScriptForm): Promise<{ page: SitePage; handover: Handover }> {
    const { version } = await this.sites.site(site)
    const { page, handover } = await this.page(site, key, form)
    const ids = [...new Set(page.sections.flatMap((s) => [s.id, ...s.former]))]
    const row = { site, page: key, version, at: Date.now(), ids: JSON.stringify(ids) }
    // Whoever needs the page gets it, though the disk is full: its IDs are then not known as handed over.
    if (ids.length)
      await this.store
        .change((db) => db.insert(HandoverRow, row))
        .catch((error: unknown) => {
          if (!(error instanceof StorageFailure)) throw error
          this.log.warn(`“${page.file}” was taken home, and that is not remembered: ${error.message}`)
        })
    return { page, handover }
  }

  /** The latest first. */
  async handedOver(site: string, key: string): Promise<HandedOver[]> {
    await this.sites.page(site, key)
    const rows = await this.store.read((db) => db.find(HandoverRow, { where: { site, page: key }, order: { row: 'DESC' } }))
    return rows.map(({ at, version, ids }) => ({ at, version, ids: JSON.parse(ids) as string[] }))
  }

  async zip(site: string, key: string, form: ScriptForm): Promise<{ name: string; stream: NodeJS.ReadableStream }> {
    const { document, page } = await this.sites.page(site, key)
    const zip = new ZipFile()
    const pages = new Set<string>()
    for (const { key: one, file } of document.pages) {
      pages.add(file)
      zip.addBuffer(Buffer.from((await this.taken(site, one, form)).handover.bytes), file)
    }
    for (const { path, hash } of await this.store.read((db) => db.findBy(FileRow, { site }))) {
      const bytes = await this.store.read((db) => getContent(db, hash))
      if (bytes && !pages.has(path)) zip.addBuffer(bytes, path)
    }
    zip.end()
    return {
      name:
        page.file
          .split('/')
          .at(-1)!
          .replace(/\.[^.]*$/, '') + '.zip',
      stream: zip.outputStream,
    }
  }
}
