/** Installing what is missing, so that both commands work on a fresh clone. */
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
}

/** Packages as the lock file has them; installed again only when it has changed. */
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

/** Chromium for tests and measuring: named by WAYBELL_BROWSER, or Debian's own, installed where that may be done. */
export function ensureBrowser() {
  const browser = process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium'
  if (existsSync(browser)) return
  if (process.env.WAYBELL_BROWSER || process.getuid?.() !== 0) {
    console.error(`There is no Chromium at ${browser}. Install Debian's package chromium, or name one with WAYBELL_BROWSER.`)
    process.exit(1)
  }
  console.log('Installing Chromium from Debian’s packages.')
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  run('apt-get', ['update', '-qq'], { env })
  if (run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { env }).status !== 0) process.exit(1)
}
