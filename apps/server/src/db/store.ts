/**
 * The only access to the database. SQLite's driver shares one connection and its transaction: anything started during a transaction
 * would be part of it and could be lost with it. So everything waits its turn, including reads, which would otherwise see uncommitted
 * data. Transactions are started and ended here by SQL, and the connection's own state decides how they ended: after a failed write they
 * may be open or gone, whatever a library thinks. A connection with a storage failure is closed; the next turn opens another.
 */
import { Inject, Injectable, Logger } from '@nestjs/common'
import { InjectDataSource } from '@nestjs/typeorm'
import { Mutex } from 'async-mutex'
import type { Database } from 'better-sqlite3'
import type { DataSource, EntityManager } from 'typeorm'
import type { BetterSqlite3Driver } from 'typeorm/driver/better-sqlite3/BetterSqlite3Driver.js'
import { CONFIG, type Config } from '../common/config.ts'
import { storageFailure } from './failure.ts'

@Injectable()
export class Store {
  private readonly turn = new Mutex()
  private readonly log = new Logger('store')

  constructor(
    @InjectDataSource() private readonly db: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** All or nothing. `work` must not use the store again; it passes on its manager. @throws StorageFailure */
  change<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.inTurn(async (connection) => {
      connection.exec('BEGIN IMMEDIATE')
      const answer = await work(this.db.manager)
      connection.exec('COMMIT')
      return answer
    })
  }

  /** @throws StorageFailure */
  read<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.inTurn(() => work(this.db.manager))
  }

  private inTurn<T>(work: (connection: Database) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(async () => {
      let connection: Database | null = null
      try {
        connection = await this.connection()
        return await work(connection)
      } catch (error) {
        const failure = storageFailure(error, this.config.data)
        if (failure) this.log.error(`${failure.code}: ${error instanceof Error ? error.message : String(error)}`)
        if (connection && (failure || !isRolledBack(connection))) await this.close(connection)
        throw failure ?? error
      }
    })
  }

  private async connection(): Promise<Database> {
    if (!this.db.isInitialized) await this.db.initialize()
    return (this.db.driver as BetterSqlite3Driver).databaseConnection as Database
  }

  /** Uncommitted changes are lost with it. */
  private async close(connection: Database): Promise<void> {
    try {
      connection.close()
    } catch (error) {
      this.log.error(`the connection was not closed in order: ${String(error)}`)
    }
    await this.db.destroy()
  }
}

/** True when no transaction is open. */
function isRolledBack(connection: Database): boolean {
  try {
    if (connection.inTransaction) connection.exec('ROLLBACK')
    return !connection.inTransaction
  } catch {
    return false
  }
}
