/** Stored entities. Sources and assets are large and don't change, so each is stored once by its SHA-256. */
import type { StackName } from '@waybell/core'
import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm'

@Entity('site')
export class SiteRow {
  @PrimaryColumn({ type: 'text' })
  key: string

  /** The site document, as JSON. */
  @Column({ type: 'text' })
  document: string

  /** Counts changes from 0. */
  @Column({ type: 'integer' })
  version: number

  /** Milliseconds since 1970. */
  @Column({ type: 'integer' })
  changedAt: number
}

@Entity('change')
@Index(['site', 'version'], { unique: true })
@Index(['site', 'idempotencyKey'], { unique: true })
@Index(['site', 'stack', 'version'])
export class ChangeRow {
  @PrimaryGeneratedColumn()
  row: number

  @Column({ type: 'text' })
  site: string

  /** Site version after the change. */
  @Column({ type: 'integer' })
  version: number

  @Column({ type: 'text' })
  idempotencyKey: string

  @Column({ type: 'text' })
  command: string

  @Column({ type: 'text' })
  inverse: string

  /** Version of the change that this one undoes. */
  @Column({ type: 'integer', nullable: true })
  undoes: number | null

  /** The stack that has it; null once undone, or if it can't be redone. */
  @Column({ type: 'text', nullable: true })
  stack: StackName | null

  /** The browser tab that made it; null for the server. */
  @Column({ type: 'text', nullable: true })
  tab: string | null

  @Column({ type: 'integer' })
  at: number

  /** The designer's name for the state after the change. */
  @Column({ type: 'text', nullable: true })
  name: string | null
}

@Entity('content')
export class ContentRow {
  @PrimaryColumn({ type: 'text' })
  hash: string

  @Column({ type: 'blob' })
  bytes: Buffer
}

@Entity('file')
export class FileRow {
  @PrimaryColumn({ type: 'text' })
  site: string

  /** Relative to the site's root, with `/`. */
  @PrimaryColumn({ type: 'text' })
  path: string

  @Column({ type: 'text' })
  hash: string
}

/** The latest survey of each page on each screen, with and without page scripts. */
@Entity('survey')
export class SurveyRow {
  @PrimaryColumn({ type: 'text' })
  site: string

  @PrimaryColumn({ type: 'text' })
  page: string

  @PrimaryColumn({ type: 'text' })
  screen: string

  @PrimaryColumn({ type: 'boolean' })
  scripts: boolean

  /** Hash of the measured source; positions in another mean nothing. */
  @Column({ type: 'text' })
  source: string

  /** Key of the measured layout. */
  @Column({ type: 'text' })
  key: string

  @Column({ type: 'text' })
  survey: string
}

/** Each handover of a page. */
@Entity('handover')
@Index(['site', 'page'])
export class HandoverRow {
  @PrimaryGeneratedColumn()
  row: number

  @Column({ type: 'text' })
  site: string

  @Column({ type: 'text' })
  page: string

  /** Of the site. */
  @Column({ type: 'integer' })
  version: number

  @Column({ type: 'integer' })
  at: number

  /** IDs of its sections, and former IDs that still arrived; as JSON. */
  @Column({ type: 'text' })
  ids: string
}

export const entities = [SiteRow, ChangeRow, ContentRow, FileRow, SurveyRow, HandoverRow]
