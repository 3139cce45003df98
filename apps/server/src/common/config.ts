/** Where the server listens and keeps its data, from the environment. */
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export interface Config {
  /** Folder of the database. */
  data: string
  port: number
}

export const CONFIG = 'WAYBELL_CONFIG'
const root = fileURLToPath(new URL('../../../..', import.meta.url))

export function readConfig(env: NodeJS.ProcessEnv): Config {
  const port = Number(env.WAYBELL_PORT ?? 7420)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`WAYBELL_PORT is “${env.WAYBELL_PORT}”; give a number from 0 to 65535`)
  const data = env.WAYBELL_DATA ?? join(root, 'data')
  mkdirSync(data, { recursive: true })
  return { data, port }
}

export const webFolder = join(root, 'apps/web/dist')
export const demoFolder = join(root, 'demo/ostrey')
