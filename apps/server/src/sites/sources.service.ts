/** Reading the sources of pages; a reading is kept as long as it is likely to be asked for again. */
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
  /** Paths that the page or its styles name and that the site does not have. */
  missing: string[]
  /** Names that the page's scripts read and nothing declares. */
  undeclared: string[]
  /** IDs that its styles and scripts name. */
  named: NamedIds
  findings: Finding[]
}

const KEPT = 6
const nameOf = ({ source, file }: Pick<SitePage, 'source' | 'file'>): string => `${source} ${file}`

@Injectable()
export class SourcesService {
  private readonly kept = new Map<string, Source>()

  constructor(private readonly store: Store) {}

  /** @param db where it is asked for within a transaction */
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

  /** What looked like a heading when it was measured. */
  private async looks(db: EntityManager, source: string): Promise<Looks> {
    const rows = await db.findBy(SurveyRow, { source, scripts: true })
    return looksOf(rows.flatMap((row) => upgradeSurvey(parseStored(row.survey)) ?? []))
  }

  /** Reads anew what was read before it was measured how its headings look. @returns whether there is anything new to read */
  renew(page: SitePage, surveys: readonly Survey[]): boolean {
    const name = nameOf(page)
    const { parsed } = this.kept.get(name) ?? {}
    if (!looksOf(surveys).length || (parsed && (!parsed.lacksHeadings || parsed.isByLook))) return false
    this.kept.delete(name)
    return true
  }

  /** IDs that the page's own styles name. */
  async namedInStyles(site: string, page: SitePage): Promise<string[]> {
    return (await this.state(site, page)).named.styles
  }

  async state(site: string, page: SitePage): Promise<PageState> {
    const { reading, parsed } = await this.source(page)
    const { missing, scripts, styles } = await this.files(site, page.file, reading)
    const { undeclared, named, findings } = knownOf({ parsed, reading, missing: new Set(missing), scripts, styles })
    return { reading, missing, undeclared: [...undeclared], named, findings }
  }

  /** Which of the page's files are missing, and the text of its scripts that are there. */
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
