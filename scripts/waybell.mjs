/** `npm run --silent waybell -- …`: the command line from a clone, built first only if nothing is built yet. */
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const built = ['core', 'runtime', 'agent', 'cli'].every((name) => existsSync(join(root, 'packages', name, 'dist/.built')))
if (!built) {
  const made = spawnSync(process.execPath, [join(root, 'scripts/build.mjs'), '--quiet', 'core', 'runtime', 'agent', 'cli'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
  })
  if (made.status !== 0) process.exit(2)
}
// npm changes to the clone's folder and says in INIT_CWD where the user stands.
const run = spawnSync(process.execPath, [join(root, 'packages/cli/dist/main.js'), ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  stdio: 'inherit',
})
process.exit(run.status ?? 2)
