/**
 * Transliteration tables: as large as the rest of a view, and often not needed. Replaces the package here (see vite.config.js); loads
 * before a page that needs it is shown, or else when idle.
 */
import type { PageReading } from '@waybell/core'

type Spell = (text: string) => string

let tables: Spell | null = null

export async function loadTables(): Promise<void> {
  tables ??= (await import('any-ascii/tables')).default
}

/** Tables for the names of a page; each worker has its own. */
export async function loadTablesFor({ candidates, ids, links }: PageReading): Promise<void> {
  const isOther = (text: string) => /(?=[^\u0000-\u007f])[\p{L}\p{N}\p{M}]/u.test(text)
  if (candidates.some((c) => isOther(c.title)) || ids.some((i) => isOther(i.id)) || links.some((l) => isOther(l.label))) await loadTables()
}

export default function anyAscii(text: string): string {
  return tables ? tables(text) : text
}
