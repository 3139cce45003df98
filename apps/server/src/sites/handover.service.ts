/** The handed-over page: bytes, list of edits, and a ZIP with its assets. */
import { Injectable, Logger } from '@nestjs/common'
import { pageEdits, textOfBytes, writePage, type Handover, type ScriptPart, type Site, type SitePage } from '@waybell/core'
import { scriptIn, sizesOf, type ScriptForm } from '@waybell/runtime'
import { ZipFile } from 'yazl'
import { Store } from '../db/store.ts'
import { FileRow, HandoverRow } from '../db/entities.ts'
import { StorageFailure } from '../db/failure.ts'
import { parseStored } from '../db/stored.ts'
import { getContent } from './content.ts'
import { SitesService } from './sites.service.ts'
import { SourcesService } from './sources.service.ts'
import { SurveysService } from './surveys.service.ts'

export interface HandoverView {
  file: string
  bytes: number
  /** Measured screens; the others are estimated. */
  measured: string[]
  edits: { offset: number; removed: string; inserted: string }[]
  /** Script sizes in bytes, by form; null if the page needs none. */
  script: Record<ScriptForm, { bytes: number; packed: number }> | null
}

interface Made {
  handover: Handover
  encoding: string
  measured: string[]
  /** Parts of the script; null for none. */
  parts: readonly ScriptPart[] | null
}

/** A handover: when, which site version, and the IDs visitors may link to from then on. */
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

  private async made(site: string, document: Site, page: SitePage, form: ScriptForm): Promise<Made> {
    const { bytes, parsed, reading } = await this.sources.source(page)
    const { surveys, present } = await this.surveys.forHandover(site, document, page)
    let parts: readonly ScriptPart[] | null = null
    // A page without set-up stays as it came.
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
          runtime: (those, why) => scriptIn(form)((parts = those), why),
        })
    return { handover: writePage(bytes, parsed, edits), encoding: parsed.decoded.encoding, measured: present, parts }
  }

  async view(site: string, key: string, form: ScriptForm): Promise<HandoverView> {
    const { document, page } = await this.sites.page(site, key)
    const { handover, encoding, measured, parts } = await this.made(site, document, page, form)
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

  /** Hands the page over, and records its IDs. */
  async taken(site: string, key: string, form: ScriptForm): Promise<{ page: SitePage; handover: Handover }> {
    const { document, page, version } = await this.sites.page(site, key)
    const { handover } = await this.made(site, document, page, form)
    await this.remember(site, version, [page])
    return { page, handover }
  }

  private async remember(site: string, version: number, pages: readonly SitePage[]): Promise<void> {
    const rows = pages.flatMap((page) => {
      const ids = [...new Set(page.sections.flatMap((s) => [s.id, ...s.former]))]
      return ids.length ? [{ site, page: page.key, version, at: Date.now(), ids: JSON.stringify(ids) }] : []
    })
    // On a full disk the page is still handed over, but its IDs aren't recorded.
    if (rows.length)
      await this.store
        .change((db) => db.insert(HandoverRow, rows))
        .catch((error: unknown) => {
          if (!(error instanceof StorageFailure)) throw error
          this.log.warn(`${pages.map((p) => `“${p.file}”`).join(', ')} was downloaded, but that could not be recorded: ${error.message}`)
        })
  }

  /** The latest first. */
  async handedOver(site: string, key: string): Promise<HandedOver[]> {
    await this.sites.page(site, key)
    const rows = await this.store.read((db) => db.find(HandoverRow, { where: { site, page: key }, order: { row: 'DESC' } }))
    return rows.map(({ at, version, ids }) => ({ at, version, ids: parseStored<string[]>(ids) }))
  }

  async zip(site: string, key: string, form: ScriptForm): Promise<{ name: string; stream: NodeJS.ReadableStream }> {
    const { document, page, version } = await this.sites.page(site, key)
    const zip = new ZipFile()
    const pages = new Set(document.pages.map((p) => p.file))
    for (const one of document.pages) zip.addBuffer(Buffer.from((await this.made(site, document, one, form)).handover.bytes), one.file)
    await this.remember(site, version, document.pages)
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
