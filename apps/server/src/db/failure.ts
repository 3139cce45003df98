/** Storage failures, with messages that say what to do. */
import { HttpException } from '@nestjs/common'

/** Nothing of the request was stored; it can be repeated once the cause is gone. */
export class StorageFailure extends HttpException {
  constructor(
    status: number,
    readonly code: string,
    message: string,
  ) {
    super({ code, message }, status)
  }
}

const DISK_FULL = 507
const NOT_NOW = 503

/** @see https://www.sqlite.org/rescode.html; extended codes start with the primary one */
const kinds: [code: RegExp, status: number, kind: string, message: (data: string) => string][] = [
  [
    /^SQLITE_FULL/,
    DISK_FULL,
    'disk-full',
    (data) => `The disk is full where ${data} is; nothing of this was stored. Free some space; it then continues by itself.`,
  ],
  [
    /^SQLITE_IOERR/,
    DISK_FULL,
    'disk-failed',
    (data) =>
      `The disk did not take or give what is in ${data}; nothing of this was stored. Check its free space and health; it then continues by itself.`,
  ],
  [
    /^SQLITE_(BUSY|LOCKED|PROTOCOL)/,
    NOT_NOW,
    'database-locked',
    (data) => `Another program holds the database in ${data}; nothing of this was stored. Close it there; it then continues by itself.`,
  ],
  [
    /^SQLITE_(READONLY|CANTOPEN|PERM|AUTH)/,
    NOT_NOW,
    'database-read-only',
    (data) =>
      `The database in ${data} cannot be written; nothing of this was stored. Give the user that runs Way Bell the right to write that folder and its files; it then continues by itself.`,
  ],
  [
    /^SQLITE_(CORRUPT|NOTADB|FORMAT)/,
    NOT_NOW,
    'database-damaged',
    (data) =>
      `The database in ${data} is damaged; nothing of this was stored. Stop Way Bell, keep that folder aside, and put a copy of it in its place.`,
  ],
]

/** SQLite's code, of the error or its cause. */
function codeOf(error: unknown): string | null {
  const { code, driverError } = (error ?? {}) as { code?: unknown; driverError?: { code?: unknown } }
  return [code, driverError?.code].find((c): c is string => typeof c === 'string' && c.startsWith('SQLITE_')) ?? null
}

/** The failure for an error; null if it isn't about storage. @param data the database's folder */
export function storageFailure(error: unknown, data: string): StorageFailure | null {
  if (error instanceof StorageFailure) return error
  const code = codeOf(error)
  const kind = code === null ? undefined : kinds.find(([pattern]) => pattern.test(code))
  return kind ? new StorageFailure(kind[1], kind[2], kind[3](data)) : null
}
