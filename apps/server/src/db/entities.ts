/** What is stored. Sources and assets are large and unchanging: they stand once, by the SHA-256 of their bytes. */
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

  /** The version that the change led to. */
  @Column({ type: 'integer' })
  version: number

  @Column({ type: 'text' })
  idempotencyKey: string

  @Column({ type: 'text' })
  command: string

  @Column({ type: 'text' })
  inverse: string

  /** Version of the change that this one takes back. */
  @Column({ type: 'integer', nullable: true })
  undoes: number | null

  /** Where undo or redo finds it; null once it was taken back, or can't be made again. */
  @Column({ type: 'text', nullable: true })
  stack: StackName | null

  /** The browser tab that made it; null where the server did. */
  @Column({ type: 'text', nullable: true })
  tab: string | null

  @Column({ type: 'integer' })
  at: number

  /** What the designer calls the state that the change led to. */
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

/** The last survey of each page on each screen, with the page's own scripts and without. */
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

  /** Hash of the source that was measured; places in another mean nothing. */
  @Column({ type: 'text' })
  source: string

  /** Key of the layout that it measured. */
  @Column({ type: 'text' })
  key: string

  @Column({ type: 'text' })
  survey: string
}

/** Each time that a page was taken home. */
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

  /** The IDs that its sections had, and their former ones that still arrived; as JSON. */
  @Column({ type: 'text' })
  ids: string
}

export const entities = [SiteRow, ChangeRow, ContentRow, FileRow, SurveyRow, HandoverRow]
