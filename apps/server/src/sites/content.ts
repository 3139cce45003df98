/** Bytes by their hash. */
import { createHash } from 'node:crypto'
import { In, type EntityManager } from 'typeorm'
import { ChangeRow, ContentRow, FileRow, SiteRow } from '../db/entities.ts'
import { DamagedRow } from '../db/stored.ts'

export const hashBytes = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

export async function putContent(db: EntityManager, bytes: Uint8Array): Promise<string> {
  const hash = hashBytes(bytes)
  if (!(await db.existsBy(ContentRow, { hash }))) await db.insert(ContentRow, { hash, bytes: Buffer.from(bytes) })
  return hash
}

/** @throws DamagedRow when the bytes changed */
export async function getContent(db: EntityManager, hash: string): Promise<Buffer | null> {
  const row = await db.findOneBy(ContentRow, { hash })
  if (row && hashBytes(row.bytes) !== hash) throw new DamagedRow(`the content of ${hash} have changed`)
  return row?.bytes ?? null
}

/** Every hash in a text; documents and commands refer to sources by hash. */
const hashesIn = (text: string): string[] => text.match(/\b[0-9a-f]{64}\b/g) ?? []

/** A site's content, including its history's. */
export async function contentOf(db: EntityManager, site: string): Promise<Set<string>> {
  const files = await db.findBy(FileRow, { site })
  const rows = await db.findBy(SiteRow, { key: site })
  const changes = await db.find(ChangeRow, { where: { site }, select: { command: true, inverse: true } })
  return new Set([
    ...files.map((f) => f.hash),
    ...rows.flatMap((r) => hashesIn(r.document)),
    ...changes.flatMap((c) => [...hashesIn(c.command), ...hashesIn(c.inverse)]),
  ])
}

/**
 * Removes content that no site uses.
 * @param among only these; by default everything, including files given for a review and never taken over
 */
export async function clearContent(db: EntityManager, among?: ReadonlySet<string>): Promise<void> {
  const kept = new Set<string>()
  for (const { key } of await db.find(SiteRow, { select: { key: true } })) for (const hash of await contentOf(db, key)) kept.add(hash)
  const all = among ?? (await db.find(ContentRow, { select: { hash: true } })).map((c) => c.hash)
  const gone = [...all].filter((hash) => !kept.has(hash))
  for (let i = 0; i < gone.length; i += 500) await db.delete(ContentRow, { hash: In(gone.slice(i, i + 500)) })
}

/** A site's file at a path; a leading `/` is the site's root. */
export async function getFile(db: EntityManager, site: string, path: string): Promise<Buffer | null> {
  const row = await db.findOneBy(FileRow, { site, path: path.replace(/^\/+/, '') })
  return row ? getContent(db, row.hash) : null
}

/** A path as stored; null if it leaves the site's folder. */
export function cleanPath(path: string): string | null {
  const out: string[] = []
  for (const step of path.replace(/\\/g, '/').split('/')) {
    if (step === '' || step === '.') continue
    if (step === '..' || step.includes('\0')) return null
    out.push(step)
  }
  return out.length ? out.join('/') : null
}
