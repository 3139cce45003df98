/** Installs what is missing, so that both commands work on a fresh clone. */
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
}

/** Packages of the lock file; installed again only when it changed. */
export function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const mark = join(root, 'node_modules/.waybell-lock')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  console.log('Installing packages; the first time this takes some minutes.')
  if (run('npm', ['ci', '--no-audit', '--no-fund']).status !== 0) {
    console.error('Installing failed; npm’s own words above say why.')
    process.exit(1)
  }
  writeFileSync(mark, lock)
}

/** Installs a program from Debian if allowed. */
export function ensureDebian(program, packages) {
  if (existsSync(program)) return
  if (process.getuid?.() !== 0) {
    console.error(`There is no ${program}. Install Debian's ${packages.join(' and ')}.`)
    process.exit(1)
  }
  console.log(`Installing ${packages.join(' and ')} from Debian’s packages.`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  run('apt-get', ['update', '-qq'], { env })
  if (run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], { env }).status !== 0) process.exit(1)
}

/** For the Nu checker. */
export function ensureJava() {
  if (spawnSync('java', ['-version'], { stdio: 'ignore' }).status !== 0) ensureDebian('/usr/bin/java', ['default-jre-headless'])
}

/** Chromium for measuring: WAYBELL_BROWSER, or Debian's. @param also further Debian packages */
export function ensureBrowser(...also) {
  const named = process.env.WAYBELL_BROWSER
  if (!named) return ['chromium', ...also].forEach((name) => ensureDebian(`/usr/bin/${name}`, [name]))
  if (existsSync(named)) return
  console.error(`There is no Chromium at ${named}, which WAYBELL_BROWSER names. Install Debian's package chromium, or name another.`)
  process.exit(1)
}
