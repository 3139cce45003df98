/**
 * The tables by which letters of all scripts are written in Latin ones: as large as the rest of a view, and many pages need none of them. This
 * stands in for the package of that name here (see vite.config.js); they load before a page with such letters is shown, else once there is time.
 */
type Spell = (text: string) => string

let tables: Spell | null = null

export async function loadTables(): Promise<void> {
  tables ??= (await import('any-ascii/tables')).default
}

/** True where something is to be spelled that is not ASCII by itself. */
export const needsTables = (texts: readonly string[]): boolean => texts.some((t) => /(?=[^\u0000-\u007f])[\p{L}\p{N}\p{M}]/u.test(t))

export default function anyAscii(text: string): string {
  return tables ? tables(text) : text
}
