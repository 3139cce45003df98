/** Parses rows. A damaged disk can change a row without SQLite noticing. */

/** Reported as damage of the database. */
export class DamagedRow extends Error {
  readonly code = 'SQLITE_CORRUPT'
}

/** @throws DamagedRow */
export function parseStored<T>(text: string): T {
  try {
    return JSON.parse(text) as T
  } catch (error) {
    throw new DamagedRow(`a row holds no JSON: ${String(error)}`)
  }
}
