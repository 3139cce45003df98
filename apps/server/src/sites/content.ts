/** Bytes by their hash. */
import { createHash } from 'node:crypto'
import type { EntityManager } from 'typeorm'
import { ContentRow, FileRow } from '../db/entities.ts'

export const hashBytes = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

export async function putContent(db: EntityManager, bytes: Uint8Array): Promise<string> {
  const hash = hashBytes(bytes)
  if (!(await db.existsBy(ContentRow, { hash }))) await db.insert(ContentRow, { hash, bytes: Buffer.from(bytes) })
  return hash
}

export async function getContent(db: EntityManager, hash: string): Promise<Buffer | null> {
  return (await db.findOneBy(ContentRow, { hash }))?.bytes ?? null
}

/** The file of a site at a path; a leading `/` means the site's root. */
export async function getFile(db: EntityManager, site: string, path: string): Promise<Buffer | null> {
  const row = await db.findOneBy(FileRow, { site, path: path.replace(/^\/+/, '') })
  return row ? getContent(db, row.hash) : null
}

/** A path as it is stored, or null for one that leaves the site's folder. */
export function cleanPath(path: string): string | null {
  const out: string[] = []
  for (const step of path.replace(/\\/g, '/').split('/')) {
    if (step === '' || step === '.') continue
    if (step === '..' || step.includes('\0')) return null
    out.push(step)
  }
  return out.length ? out.join('/') : null
}
