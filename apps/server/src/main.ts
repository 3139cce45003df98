import 'reflect-metadata'
import type { AddressInfo } from 'node:net'
import { createApplication } from './application.ts'
import { readConfig } from './common/config.ts'

try {
  const config = readConfig(process.env)
  const app = await createApplication(config)
  try {
    await app.listen(config.port, '127.0.0.1')
  } catch (error) {
    const isTaken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
    throw isTaken ? new Error(`Port ${config.port} is in use; stop what uses it, or give another with WAYBELL_PORT.`) : error
  }
  const { port } = app.getHttpServer().address() as AddressInfo
  console.log(`Way Bell is at http://127.0.0.1:${port}/ (data in ${config.data}). Stop it with Ctrl+C.`)
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exit(1)
}
