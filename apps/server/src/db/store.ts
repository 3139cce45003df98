/**
 * The one way to the database. SQLite's driver shares one connection, and with it one transaction: what is begun while another is open
 * would be part of that, and be lost with it. So everything waits for its turn, reading too, which would else see what is not stored.
 */
import { Injectable } from '@nestjs/common'
import { InjectDataSource } from '@nestjs/typeorm'
import { Mutex } from 'async-mutex'
import type { DataSource, EntityManager } from 'typeorm'

@Injectable()
export class Store {
  private readonly turn = new Mutex()

  constructor(@InjectDataSource() private readonly db: DataSource) {}

  /** All of it or nothing. `work` must not ask the store again; what it calls takes the manager that it is given. */
  change<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => this.db.transaction(work))
  }

  read<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => work(this.db.manager))
  }
}
