import { NotFoundException } from '@nestjs/common'
import type { EntityManager } from 'typeorm'
import { SiteRow } from '../db/entities.ts'

/** The row of a site. @throws NotFoundException */
export async function siteRow(db: EntityManager, key: string): Promise<SiteRow> {
  const row = await db.findOneBy(SiteRow, { key })
  if (!row) throw new NotFoundException({ code: 'no-site', message: 'There is no such site; it may have been removed.' })
  return row
}
