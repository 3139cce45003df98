/** Makes the demo site at the first run. */
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative, sep } from 'node:path'
import { Inject } from '@nestjs/common'
import { Store } from './db/store.ts'
import { CONFIG, DEMO_MADE, demoFolder, type Config } from './common/config.ts'
import { SiteRow } from './db/entities.ts'
import { demoSite } from './demo.ts'
import { readImport } from './sites/import.ts'
import { SitesService } from './sites/sites.service.ts'

@Injectable()
export class DemoService implements OnApplicationBootstrap {
  constructor(
    private readonly store: Store,
    @Inject(CONFIG) private readonly config: Config,
    private readonly sites: SitesService,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    // A removed demo site stays removed.
    const mark = join(this.config.data, DEMO_MADE)
    if (existsSync(mark) || (await this.store.read((db) => db.count(SiteRow))) > 0) return
    const files = filesIn(demoFolder).map((file) => ({ name: relative(demoFolder, file).split(sep).join('/'), bytes: readFileSync(file) }))
    const read = readImport(files)
    await this.sites.create(read, {}, (site) => demoSite(site, read.pages))
    writeFileSync(mark, '')
  }
}

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? filesIn(join(folder, e.name)) : [join(folder, e.name)]))
