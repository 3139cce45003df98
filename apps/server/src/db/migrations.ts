/** Migrations, in order. Written by hand, and never changed after they landed. */
import { fourth, secondCommand, secondSite, ThirdLog, thirdSite } from '@waybell/core'
import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Upgrades every stored document, and every command and inverse of the change log. */
async function upgradeStored(runner: QueryRunner, site: (old: never) => unknown, command: (old: never) => unknown): Promise<void> {
  const upgraded = (upgrade: (old: never) => unknown, text: string) => JSON.stringify(upgrade(JSON.parse(text) as never))
  const sites = (await runner.query(`SELECT "key", "document" FROM "site"`)) as { key: string; document: string }[]
  for (const { key, document } of sites)
    await runner.query(`UPDATE "site" SET "document" = ? WHERE "key" = ?`, [upgraded(site, document), key])
  const changes = (await runner.query(`SELECT "row", "command", "inverse" FROM "change"`)) as {
    row: number
    command: string
    inverse: string
  }[]
  for (const c of changes)
    await runner.query(`UPDATE "change" SET "command" = ?, "inverse" = ? WHERE "row" = ?`, [
      upgraded(command, c.command),
      upgraded(command, c.inverse),
      c.row,
    ])
}

class FirstSchema implements MigrationInterface {
  name = 'FirstSchema1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "site" ("key" text PRIMARY KEY NOT NULL, "document" text NOT NULL, "version" integer NOT NULL, "changedAt" integer NOT NULL)`,
    )
    await runner.query(
      `CREATE TABLE "change" ("row" integer PRIMARY KEY AUTOINCREMENT NOT NULL, "site" text NOT NULL, "version" integer NOT NULL, "idempotencyKey" text NOT NULL, "command" text NOT NULL, "inverse" text NOT NULL, "undoes" integer, "at" integer NOT NULL)`,
    )
    await runner.query(`CREATE UNIQUE INDEX "change_version" ON "change" ("site", "version")`)
    await runner.query(`CREATE UNIQUE INDEX "change_idempotency" ON "change" ("site", "idempotencyKey")`)
    await runner.query(`CREATE TABLE "content" ("hash" text PRIMARY KEY NOT NULL, "bytes" blob NOT NULL)`)
    await runner.query(
      `CREATE TABLE "file" ("site" text NOT NULL, "path" text NOT NULL, "hash" text NOT NULL, PRIMARY KEY ("site", "path"))`,
    )
    await runner.query(
      `CREATE TABLE "survey" ("site" text NOT NULL, "page" text NOT NULL, "screen" text NOT NULL, "source" text NOT NULL, "survey" text NOT NULL, PRIMARY KEY ("site", "page", "screen"))`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['survey', 'file', 'content', 'change', 'site']) await runner.query(`DROP TABLE "${table}"`)
  }
}

/** Upgrades documents and commands to version 2: points, former IDs, depths, the whole naming rule. */
class SecondDocument implements MigrationInterface {
  name = 'SecondDocument1764100000000'

  up(runner: QueryRunner): Promise<void> {
    return upgradeStored(runner, secondSite, secondCommand)
  }

  /** Version 1 can't hold the additions. */
  down(): Promise<void> {
    return Promise.reject(new Error('a database of this version cannot go back to an earlier one; take the copy that was made before'))
  }
}

class NamedStates implements MigrationInterface {
  name = 'NamedStates1764200000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "change" ADD COLUMN "name" text`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "change" DROP COLUMN "name"`)
  }
}

/** Upgrades documents and commands to version 3: menus in several elements, the bar's place with its menu. */
class ThirdDocument implements MigrationInterface {
  name = 'ThirdDocument1764300000000'

  async up(runner: QueryRunner): Promise<void> {
    const sites = (await runner.query(`SELECT "key", "document" FROM "site"`)) as { key: string; document: string }[]
    for (const { key, document } of sites) {
      await runner.query(`UPDATE "site" SET "document" = ? WHERE "key" = ?`, [JSON.stringify(thirdSite(JSON.parse(document))), key])
      const log = new ThirdLog()
      const changes = (await runner.query(`SELECT "row", "command", "inverse" FROM "change" WHERE "site" = ? ORDER BY "version"`, [
        key,
      ])) as {
        row: number
        command: string
        inverse: string
      }[]
      for (const { row, command, inverse } of changes) {
        const next = log.change(JSON.parse(command), JSON.parse(inverse))
        await runner.query(`UPDATE "change" SET "command" = ?, "inverse" = ? WHERE "row" = ?`, [
          JSON.stringify(next.command),
          JSON.stringify(next.inverse),
          row,
        ])
      }
    }
  }

  /** Version 2 can't hold menus in several elements. */
  down(): Promise<void> {
    return Promise.reject(new Error('a database of this version cannot go back to an earlier one; take the copy that was made before'))
  }
}

/** Stores surveys with their layout's key; earlier ones are measured again. */
class KeyedSurveys implements MigrationInterface {
  name = 'KeyedSurveys1764400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "survey"`)
    await runner.query(
      `CREATE TABLE "survey" ("site" text NOT NULL, "page" text NOT NULL, "screen" text NOT NULL, "scripts" boolean NOT NULL, "source" text NOT NULL, "key" text NOT NULL, "survey" text NOT NULL, PRIMARY KEY ("site", "page", "screen", "scripts"))`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "survey"`)
    await runner.query(
      `CREATE TABLE "survey" ("site" text NOT NULL, "page" text NOT NULL, "screen" text NOT NULL, "source" text NOT NULL, "survey" text NOT NULL, PRIMARY KEY ("site", "page", "screen"))`,
    )
  }
}

class Handovers implements MigrationInterface {
  name = 'Handovers1764500000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "handover" ("row" integer PRIMARY KEY AUTOINCREMENT NOT NULL, "site" text NOT NULL, "page" text NOT NULL, "version" integer NOT NULL, "at" integer NOT NULL, "ids" text NOT NULL)`,
    )
    await runner.query(`CREATE INDEX "handover_page" ON "handover" ("site", "page")`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "handover"`)
  }
}

/** Lets undo and redo read only what they need, however long the log is. */
class StoredStacks implements MigrationInterface {
  name = 'StoredStacks1764600000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "change" ADD COLUMN "stack" text`)
    await runner.query(`ALTER TABLE "change" ADD COLUMN "tab" text`)
    await runner.query(`CREATE INDEX "change_stack" ON "change" ("site", "stack", "version")`)
    const log = (await runner.query(`SELECT "row", "site", "version", "undoes" FROM "change" ORDER BY "site", "version"`)) as {
      row: number
      site: string
      version: number
      undoes: number | null
    }[]
    for (let i = 0; i < log.length;) {
      const { site } = log[i]!
      let undo: typeof log = []
      let redo: typeof log = []
      for (; log[i]?.site === site; i++) {
        const change = log[i]!
        const isUndo = undo.some((c) => c.version === change.undoes)
        const isRedo = redo.some((c) => c.version === change.undoes)
        undo = undo.filter((c) => c.version !== change.undoes)
        redo = isUndo || isRedo ? redo.filter((c) => c.version !== change.undoes) : []
        if (isUndo) redo.push(change)
        else undo.push(change)
      }
      for (const [stack, changes] of [['undo', undo] as const, ['redo', redo] as const])
        for (const { row } of changes) await runner.query(`UPDATE "change" SET "stack" = ? WHERE "row" = ?`, [stack, row])
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "change_stack"`)
    for (const column of ['stack', 'tab']) await runner.query(`ALTER TABLE "change" DROP COLUMN "${column}"`)
  }
}

/** Upgrades documents and commands to version 4, which renames properties and commands. */
class FourthDocument implements MigrationInterface {
  name = 'FourthDocument1764700000000'

  up(runner: QueryRunner): Promise<void> {
    return upgradeStored(runner, fourth, fourth)
  }

  /** Version 3 has other names. */
  down(): Promise<void> {
    return Promise.reject(new Error('a database of this version cannot go back to an earlier one; take the copy that was made before'))
  }
}

export const migrations = [FirstSchema, SecondDocument, NamedStates, ThirdDocument, KeyedSurveys, Handovers, StoredStacks, FourthDocument]
