/** `npm start`: installs, builds and serves. The database and the demo site are made where they are missing. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
if (run(process.execPath, [join(root, 'scripts/build.mjs')]).status !== 0) process.exit(1)
const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], { stdio: 'inherit' })
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => process.exit(code ?? 0))
