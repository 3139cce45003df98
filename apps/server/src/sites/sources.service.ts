/** Reads sources of pages, and caches readings. */
import { Injectable } from '@nestjs/common'
import type { EntityManager } from 'typeorm'
import {
  followAssets,
  knownOf,
  looksOf,
  parsePage,
  readParsed,
  resolvePath,
  upgradeSurvey,
  type Finding,
  type Looks,
  type NamedIds,
  type PageReading,
  type ParsedPage,
  type SitePage,
  type Survey,
} from '@waybell/core'
import { Store } from '../db/store.ts'
import { FileRow, SurveyRow } from '../db/entities.ts'
import { DamagedRow, parseStored } from '../db/stored.ts'
import { getContent } from './content.ts'

export interface Source {
  bytes: Uint8Array
  parsed: ParsedPage
  reading: PageReading
}

export interface PageState {
  reading: PageReading
  /** Paths that page or styles load and the site lacks. */
  missing: string[]
  /** Names that page scripts read and nothing declares. */
  undeclared: string[]
  /** IDs that styles and scripts use. */
  named: NamedIds
  findings: Finding[]
}

const KEPT = 6
const nameOf = ({ source, file }: Pick<SitePage, 'source' | 'file'>): string => `${source} ${file}`

@Injectable()
export class SourcesService {
  private readonly kept = new Map<string, Source>()

  constructor(private readonly store: Store) {}

  /** @param db within a transaction */
  async source(page: SitePage, db?: EntityManager): Promise<Source> {
    const name = nameOf(page)
    const known = this.kept.get(name)
    if (known) return known
    const read = (from: EntityManager) => getContent(from, page.source)
    const bytes = await (db ? read(db) : this.store.read(read))
    if (!bytes) throw new DamagedRow(`the source ${page.source} of “${page.file}” is not in the database`)
    let parsed = parsePage(bytes)
    if (parsed.lacksHeadings) {
      const looks = await (db ? this.looks(db, page.source) : this.store.read((from) => this.looks(from, page.source)))
      if (looks.length) parsed = parsePage(bytes, looks)
    }
    const source = { bytes, parsed, reading: readParsed(parsed, bytes.length, page.file) }
    this.kept.set(name, source)
    if (this.kept.size > KEPT) this.kept.delete(this.kept.keys().next().value!)
    return source
  }

  /** Headings by look, as measured. */
  private async looks(db: EntityManager, source: string): Promise<Looks> {
    const rows = await db.findBy(SurveyRow, { source, scripts: true })
    return looksOf(rows.flatMap((row) => upgradeSurvey(parseStored(row.survey)) ?? []))
  }

  /** Reads a page again once its headings were measured. @returns whether the reading changed */
  renew(page: SitePage, surveys: readonly Survey[]): boolean {
    const name = nameOf(page)
    const { parsed } = this.kept.get(name) ?? {}
    if (!looksOf(surveys).length || (parsed && (!parsed.lacksHeadings || parsed.isByLook))) return false
    this.kept.delete(name)
    return true
  }

  /** IDs that the page's styles use. */
  async namedInStyles(site: string, page: SitePage): Promise<string[]> {
    return (await this.state(site, page)).named.styles
  }

  async state(site: string, page: SitePage): Promise<PageState> {
    const { reading, parsed } = await this.source(page)
    const { missing, scripts, styles } = await this.files(site, page.file, reading)
    const { undeclared, named, findings } = knownOf({ parsed, reading, missing: new Set(missing), scripts, styles })
    return { reading, missing, undeclared: [...undeclared], named, findings }
  }

  /** Missing files of the page, and the text of its scripts. */
  private async files(
    site: string,
    file: string,
    reading: PageReading,
  ): Promise<{ missing: string[]; scripts: string[]; styles: string[] }> {
    const files = new Map<string, string>()
    const texts = new Map<string, string>()
    await this.store.read(async (db) => {
      for (const { path, hash } of await db.findBy(FileRow, { site })) {
        files.set(path, hash)
        if (/\.(css|m?js)$/i.test(path)) texts.set(path, (await getContent(db, hash))?.toString('utf8') ?? '')
      }
    })
    const { missing, found } = followAssets(reading.assets, (named) => {
      const path = resolvePath(file, named)
      return path !== null && files.has(path) ? { key: path, text: texts.get(path) ?? null } : null
    })
    const textsOf = (kind: RegExp) => [...found].filter((path) => kind.test(path)).map((path) => texts.get(path) ?? '')
    return { missing: [...missing], scripts: textsOf(/\.m?js$/i), styles: textsOf(/\.css$/i) }
  }
}
