/** Copies all data from a running server, and restores them while it's stopped: `npm run copy -- FOLDER`, `npm run restore -- FOLDER`. */
import Sqlite from 'better-sqlite3'
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { DATABASE, DEMO_MADE, readConfig } from './common/config.ts'
import { FolderInUse } from './db/folder.ts'

/** By SQLite's backup, so changes may go on. @throws Error with a message for people */
export async function copyData(data: string, to: string): Promise<void> {
  if (!existsSync(join(data, DATABASE))) throw new Error(`There is no database in ${data}; name its folder with WAYBELL_DATA.`)
  mkdirSync(to, { recursive: true })
  if (readdirSync(to).length) throw new Error(`${to} is not empty; name a new folder for the copy.`)
  const db = new Sqlite(join(data, DATABASE), { readonly: true })
  try {
    await db.backup(join(to, DATABASE))
  } finally {
    db.close()
  }
  checkSound(to)
  if (existsSync(join(data, DEMO_MADE))) copyFileSync(join(data, DEMO_MADE), join(to, DEMO_MADE))
}

/** Keeps the replaced data. @returns the file they are kept in; null if there were none @throws Error with a message for people */
export function restoreData(from: string, data: string): string | null {
  checkSound(from)
  const inUse = FolderInUse.take(data)
  try {
    // Copied beside it first, so that a full disk leaves the old data.
    copyFileSync(join(from, DATABASE), join(data, `${DATABASE}.new`))
    const before = `waybell-before-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`
    const wasThere = existsSync(join(data, DATABASE))
    if (wasThere) gather(join(data, DATABASE))
    // A leftover write-ahead log must not be applied to the copy.
    for (const ending of ['', '-wal', '-shm'])
      if (existsSync(join(data, DATABASE + ending))) renameSync(join(data, DATABASE + ending), join(data, before + ending))
    renameSync(join(data, `${DATABASE}.new`), join(data, DATABASE))
    if (existsSync(join(from, DEMO_MADE))) copyFileSync(join(from, DEMO_MADE), join(data, DEMO_MADE))
    return wasThere ? before : null
  } finally {
    inUse.onApplicationShutdown()
  }
}

/** Merges the write-ahead log into the kept file; a damaged one keeps its log. */
function gather(file: string): void {
  try {
    const db = new Sqlite(file)
    try {
      db.pragma('wal_checkpoint(TRUNCATE)')
    } finally {
      db.close()
    }
  } catch {
    // Kept as it is.
  }
}

function checkSound(folder: string): void {
  const file = join(folder, DATABASE)
  if (!existsSync(file)) throw new Error(`There is no copy in ${folder}: it has no ${DATABASE}.`)
  const db = new Sqlite(file, { readonly: true })
  try {
    const told = db.pragma('integrity_check', { simple: true }) as string
    if (told !== 'ok') throw new Error(told)
  } catch (error) {
    throw new Error(`The copy in ${folder} is damaged (${error instanceof Error ? error.message : String(error)}); take another.`, {
      cause: error,
    })
  } finally {
    db.close()
  }
}

async function main([what, folder]: string[]): Promise<void> {
  if ((what !== 'copy' && what !== 'restore') || folder === undefined)
    throw new Error('Name the folder of the copy: npm run copy -- FOLDER, or npm run restore -- FOLDER.')
  const path = resolve(process.env.INIT_CWD ?? '.', folder)
  const { data } = readConfig(process.env)
  if (what === 'copy') {
    await copyData(data, path)
    console.log(`All of ${data} is copied to ${path}. To put it back: npm run restore -- ${folder}`)
  } else {
    const before = restoreData(path, data)
    console.log(`${path} is put back into ${data}.${before ? ` What was there is kept as ${before}.` : ''}`)
  }
}

if (/copies\.js$/.test(process.argv[1] ?? ''))
  main(process.argv.slice(2)).catch((error: unknown) => {
    console.error(error instanceof Error ? error.message : String(error))
    process.exitCode = 1
  })
