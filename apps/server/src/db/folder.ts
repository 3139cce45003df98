/** One server per folder: two would overwrite each other. */
import { Injectable, type OnApplicationShutdown } from '@nestjs/common'
import Sqlite, { type Database } from 'better-sqlite3'
import { join } from 'node:path'

/** A file lock of the operating system, which ends with the process. */
@Injectable()
export class FolderInUse implements OnApplicationShutdown {
  private constructor(private readonly held: Database) {}

  /** @throws Error with a message for people when another server uses the folder, or it can't be written */
  static take(data: string): FolderInUse {
    const held = new Sqlite(join(data, 'in-use.sqlite'), { timeout: 0 })
    try {
      held.exec('BEGIN EXCLUSIVE')
    } catch (error) {
      held.close()
      if ((error as { code?: string }).code?.startsWith('SQLITE_BUSY'))
        throw new Error(`Another Way Bell works on ${data}; stop that one, or give this one a folder of its own with WAYBELL_DATA.`, {
          cause: error,
        })
      throw error
    }
    return new FolderInUse(held)
  }

  onApplicationShutdown(): void {
    this.held.close()
  }
}
