/** One server to a folder: two would each believe that what is there is as they left it. */
import { Injectable, type OnApplicationShutdown } from '@nestjs/common'
import Sqlite, { type Database } from 'better-sqlite3'
import { join } from 'node:path'

/** Held by a lock of the operating system on a file of its own, which ends with the process however that ends. */
@Injectable()
export class FolderInUse implements OnApplicationShutdown {
  private constructor(private readonly held: Database) {}

  /** @throws Error in words where another server works on the folder, or it cannot be written */
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
