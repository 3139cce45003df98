/**
 * The tables by which letters of all scripts are written in Latin ones: as large as the rest of a view, and many pages need none of them. This
 * stands in for the package of that name here (see vite.config.js); they load before a page with such letters is shown, else once there is time.
 */
import type { PageReading } from '@waybell/core'

type Spell = (text: string) => string

let tables: Spell | null = null

export async function loadTables(): Promise<void> {
  tables ??= (await import('any-ascii/tables')).default
}

/** Those that it takes to spell the names of a page; each worker has its own. */
export async function loadTablesFor({ candidates, ids, links }: PageReading): Promise<void> {
  const isOther = (text: string) => /(?=[^\u0000-\u007f])[\p{L}\p{N}\p{M}]/u.test(text)
  if (candidates.some((c) => isOther(c.title)) || ids.some((i) => isOther(i.id)) || links.some((l) => isOther(l.label))) await loadTables()
}

export default function anyAscii(text: string): string {
  return tables ? tables(text) : text
}
