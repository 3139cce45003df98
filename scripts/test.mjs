/**
 * `npm test`: types, lint, import directions, unit and server tests, browser tests. The last line counts the tests by the
 * runners' own reports; anything failed, or nothing run, is a non-zero exit.
 */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBrowser, ensureJava, ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
ensureBrowser('chromium-headless-shell')
ensureJava()

let broken = 0
const step = (name, command, args) => {
  console.log(`\n== ${name}`)
  const { status } = run(command, args)
  if (status !== 0) {
    broken++
    console.log(`== ${name} failed`)
  }
}
const bin = (name) => join(root, 'node_modules/.bin', name)
const reports = { jest: join(root, '.cache/jest.json'), playwright: join(root, 'e2e/test-results/report.json') }
mkdirSync(join(root, '.cache'), { recursive: true })
for (const report of Object.values(reports)) rmSync(report, { force: true })

step('build', process.execPath, ['scripts/build.mjs'])
step('types', 'npm', ['run', '--silent', 'types'])
step('lint', bin('eslint'), ['.'])
step('indexes that are made', process.execPath, ['scripts/registries.mjs', '--check'])
step('published schema', process.execPath, ['scripts/schema.mjs', '--check'])
step('formatting', 'npm', ['run', '--silent', 'formatted'])
step('import directions', 'npm', ['run', '--silent', 'imports'])
step('unit and server tests', bin('jest'), ['--json', `--outputFile=${reports.jest}`])
step('browser tests', bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts'])

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
} else counts.failed++

const ok = broken === 0 && counts.failed === 0 && counts.passed > 0
if (broken) console.log(`\n${broken} of the steps above failed.`)
process.exitCode = ok ? 0 : 1
// A step that failed without a test to show for it is told here too.
if (broken && !counts.failed) counts.failed = broken
console.log(`${counts.passed} passed, ${counts.failed} failed${counts.skipped ? `, ${counts.skipped} skipped` : ''}`)
