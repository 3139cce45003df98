/** Address and data folder, from the environment. */
import { mkdirSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export interface Config {
  /** Folder of the database. */
  data: string
  port: number
}

export const CONFIG = 'WAYBELL_CONFIG'

/** Files in the data folder: the database, and a mark that the demo site was made, so that a removed one stays removed. */
export const DATABASE = 'waybell.sqlite'
export const DEMO_MADE = 'demo-made'
const root = fileURLToPath(new URL('../../../..', import.meta.url))

export function readConfig(env: NodeJS.ProcessEnv): Config {
  const port = Number(env.WAYBELL_PORT ?? 7420)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`WAYBELL_PORT is “${env.WAYBELL_PORT}”; give a number from 0 to 65535`)
  const host = env.WAYBELL_HOST
  if (host !== undefined && host !== '127.0.0.1')
    throw new Error(
      `WAYBELL_HOST is “${host}”, and Way Bell listens on 127.0.0.1 alone: whoever reaches it can change every site. To be reached from elsewhere it would need a host name of its own with a wildcard under it for the origins of pages, HTTPS, and an access key; it has none of these yet (docs/security.md). Leave WAYBELL_HOST out.`,
    )
  const data = env.WAYBELL_DATA ?? join(root, 'data')
  mkdirSync(data, { recursive: true })
  return { data, port }
}

/** Disk space used by the data. */
export const dataSize = (data: string): { folder: string; bytes: number } => ({
  folder: data,
  bytes: readdirSync(data).reduce((sum, name) => sum + (statSync(join(data, name), { throwIfNoEntry: false })?.size ?? 0), 0),
})

export const webFolder = join(root, 'apps/web/dist')
export const demoFolder = join(root, 'demo/ostrey')
