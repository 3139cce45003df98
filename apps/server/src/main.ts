import 'reflect-metadata'
import type { AddressInfo } from 'node:net'
import { createApplication } from './application.ts'
import { readConfig } from './common/config.ts'

const config = readConfig(process.env)
const app = await createApplication(config)
try {
  await app.listen(config.port, '127.0.0.1')
  const { port } = app.getHttpServer().address() as AddressInfo
  console.log(`Way Bell is at http://127.0.0.1:${port}/ (data in ${config.data}). Stop it with Ctrl+C.`)
} catch (error) {
  const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
  console.error(taken ? `Port ${config.port} is in use; stop what uses it, or give another with WAYBELL_PORT.` : String(error))
  process.exit(1)
}
