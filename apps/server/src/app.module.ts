import { type DynamicModule, Module } from '@nestjs/common'
import { TypeOrmModule } from '@nestjs/typeorm'
import { join } from 'node:path'
import { CONFIG, DATABASE, type Config } from './common/config.ts'
import { entities } from './db/entities.ts'
import { FolderInUse } from './db/folder.ts'
import { migrations } from './db/migrations.ts'
import { Store } from './db/store.ts'
import { DemoService } from './demo.service.ts'
import { LiveService } from './live/live.service.ts'
import { ChangesService } from './sites/changes.service.ts'
import { HandoverService } from './sites/handover.service.ts'
import { OverviewService } from './sites/overview.service.ts'
import { SitesController } from './sites/sites.controller.ts'
import { SitesService } from './sites/sites.service.ts'
import { VersionsService } from './sites/versions.service.ts'
import { SourcesService } from './sites/sources.service.ts'
import { SurveysService } from './sites/surveys.service.ts'

@Module({})
export class AppModule {
  static with(config: Config, folder: FolderInUse): DynamicModule {
    return {
      module: AppModule,
      imports: [
        TypeOrmModule.forRoot({
          type: 'better-sqlite3',
          database: join(config.data, DATABASE),
          entities,
          migrations,
          migrationsRun: true,
          synchronize: false,
          enableWAL: true,
          // Max wait for another program's lock, in ms: waiting blocks everything else.
          timeout: 500,
          // Reports at once what keeps it from opening.
          retryAttempts: 0,
          // Full sync: a change that was confirmed is on the disk.
          prepareDatabase: (db: { pragma(text: string): unknown }) => void db.pragma('synchronous = FULL'),
        }),
      ],
      controllers: [SitesController],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: FolderInUse, useValue: folder },
        Store,
        SitesService,
        ChangesService,
        SourcesService,
        SurveysService,
        VersionsService,
        HandoverService,
        OverviewService,
        LiveService,
        DemoService,
      ],
    }
  }
}
