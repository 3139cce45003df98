/**
 * `npm test`: types, lint, import directions, unit and server tests, browser tests. The last line counts the tests by the
 * runners' own reports; anything failed, or nothing run, is a non-zero exit. With `--quick` ten browser tests run that cross everything.
 */
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBrowser, ensureJava, ensurePackages, root } from './ensure.mjs'

/** Browser tests that cross everything, by their names. */
const QUICK = [
  'an outline becomes a page',
  'a press right after the start',
  'bands match the survey',
  'equals a fresh load of the handover, its scripts off',
  'several pages are built in one browser',
  'build writes the page, its files',
  'the focus stays with the work',
  'a file name with a bare per cent sign',
  'a page with a base address stays where it is',
  'what scripts build is told, and tried',
]
const isQuick = process.argv.includes('--quick')
ensurePackages()
ensureBrowser('chromium-headless-shell')
ensureJava()

let broken = 0
/** Runs a command and prints what it says once it has ended, so that steps which run together don't mix. */
function step(name, command, args, isShown = false) {
  const started = Date.now()
  return new Promise((done) => {
    const child = spawn(command, args, { cwd: root, stdio: isShown ? 'inherit' : ['ignore', 'pipe', 'pipe'] })
    const said = []
    child.stdout?.on('data', (chunk) => said.push(chunk))
    child.stderr?.on('data', (chunk) => said.push(chunk))
    child.on('close', (status) => {
      const seconds = ((Date.now() - started) / 1000).toFixed(0)
      console.log(`\n== ${name}: ${status === 0 ? 'passed' : 'failed'} in ${seconds} s`)
      process.stdout.write(Buffer.concat(said))
      if (status !== 0) broken++
      done()
    })
  })
}
const bin = (name) => join(root, 'node_modules/.bin', name)
const reports = { jest: join(root, '.cache/jest.json'), playwright: join(root, 'e2e/test-results/report.json') }
mkdirSync(join(root, '.cache'), { recursive: true })
for (const report of Object.values(reports)) rmSync(report, { force: true })

await step('build', process.execPath, ['scripts/build.mjs'], true)
const statics = async () => {
  await step('types', 'npm', ['run', '--silent', 'types'])
  await step('lint', 'npm', ['run', '--silent', 'lint'])
  await step('indexes that are made', process.execPath, ['scripts/registries.mjs', '--check'])
  await step('published schema', process.execPath, ['scripts/schema.mjs', '--check'])
  await step('formatting', 'npm', ['run', '--silent', 'formatted'])
  await step('import directions', 'npm', ['run', '--silent', 'imports'])
}
await Promise.all([statics(), step('unit and server tests', bin('jest'), ['--json', `--outputFile=${reports.jest}`])])
const chosen = isQuick ? ['--grep', QUICK.join('|')] : []
await step('browser tests', bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts', ...chosen], true)

const counts = { passed: 0, failed: 0, skipped: 0 }
if (existsSync(reports.jest)) {
  const jest = JSON.parse(readFileSync(reports.jest, 'utf8'))
  counts.passed += jest.numPassedTests
  counts.failed += jest.numFailedTests + jest.numRuntimeErrorTestSuites
  counts.skipped += jest.numPendingTests + jest.numTodoTests
} else counts.failed++
if (existsSync(reports.playwright)) {
  const { stats, errors } = JSON.parse(readFileSync(reports.playwright, 'utf8'))
  counts.passed += stats.expected + stats.flaky
  counts.failed += stats.unexpected + errors.length
  counts.skipped += stats.skipped
  const ran = stats.expected + stats.unexpected
  if (isQuick && ran !== QUICK.length) {
    console.log(`${ran} of the ${QUICK.length} quick browser tests have the names that scripts/test.mjs knows; bring its list up to date.`)
    counts.failed++
  }
} else counts.failed++

const ok = broken === 0 && counts.failed === 0 && counts.passed > 0
if (broken) console.log(`\n${broken} of the steps above failed.`)
process.exitCode = ok ? 0 : 1
// A step that failed without a test to show for it is told here too.
if (broken && !counts.failed) counts.failed = broken
console.log(`${counts.passed} passed, ${counts.failed} failed${counts.skipped ? `, ${counts.skipped} skipped` : ''}`)
