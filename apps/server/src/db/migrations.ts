/** Migrations, in order; each takes the schema one step. They are written by hand and never changed once they have landed. */
import type { MigrationInterface, QueryRunner } from 'typeorm'

class FirstSchema implements MigrationInterface {
  name = 'FirstSchema1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "site" ("key" text PRIMARY KEY NOT NULL, "document" text NOT NULL, "version" integer NOT NULL, "changedAt" integer NOT NULL)`)
    await runner.query(
      `CREATE TABLE "change" ("row" integer PRIMARY KEY AUTOINCREMENT NOT NULL, "site" text NOT NULL, "version" integer NOT NULL, "idempotencyKey" text NOT NULL, "command" text NOT NULL, "inverse" text NOT NULL, "undoes" integer, "at" integer NOT NULL)`,
    )
    await runner.query(`CREATE UNIQUE INDEX "change_version" ON "change" ("site", "version")`)
    await runner.query(`CREATE UNIQUE INDEX "change_idempotency" ON "change" ("site", "idempotencyKey")`)
    await runner.query(`CREATE TABLE "content" ("hash" text PRIMARY KEY NOT NULL, "bytes" blob NOT NULL)`)
    await runner.query(`CREATE TABLE "file" ("site" text NOT NULL, "path" text NOT NULL, "hash" text NOT NULL, PRIMARY KEY ("site", "path"))`)
    await runner.query(
      `CREATE TABLE "survey" ("site" text NOT NULL, "page" text NOT NULL, "screen" text NOT NULL, "source" text NOT NULL, "survey" text NOT NULL, PRIMARY KEY ("site", "page", "screen"))`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['survey', 'file', 'content', 'change', 'site']) await runner.query(`DROP TABLE "${table}"`)
  }
}

export const migrations = [FirstSchema]
