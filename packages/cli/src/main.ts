#!/usr/bin/env node
/** `waybell`: Way Bell in the terminal. */
import { defaultScreens, PageError, type Screen } from '@waybell/core'
import { existsSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { check } from './check.ts'
import { isWrong } from './report.ts'

const usage = `usage: waybell build PAGE.html… --out DIR [--browser PATH] [--screens KEY,…] [--no-try] [--small] [--format json|text]
       waybell check PAGE.html [--format json|text]`

/** The first installed one is used: the shell runs pages in virtual time. */
const BROWSERS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']

async function main(): Promise<number> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      browser: { type: 'string' },
      screens: { type: 'string' },
      format: { type: 'string', default: 'text' },
      'no-try': { type: 'boolean', default: false },
      small: { type: 'boolean', default: false },
      help: { type: 'boolean', short: 'h' },
    },
  })
  const [command, page, ...rest] = positionals
  if (values.help) {
    console.log(usage)
    return 0
  }
  const known = command === 'build' || command === 'check'
  if (
    !known ||
    !page ||
    (command === 'check' && rest.length) ||
    (command === 'build' && !values.out) ||
    !['json', 'text'].includes(values.format)
  ) {
    console.error(usage)
    return 2
  }
  if (command === 'check') {
    const { report, failed, text } = check(page)
    process.stdout.write((values.format === 'json' ? JSON.stringify(report, null, 2) : text) + '\n')
    return failed ? 1 : 0
  }
  const browser = values.browser ?? process.env.WAYBELL_BROWSER ?? BROWSERS.find((path) => existsSync(path))
  const screens = values.screens === undefined ? defaultScreens : screensNamed(values.screens)
  if (typeof screens === 'string') {
    console.error(`waybell: --screens: ${screens}`)
    return 2
  }
  // The browser starts while the rest loads; `check` needs neither.
  const { startBrowser } = await import('@waybell/driver')
  const started = browser !== undefined && existsSync(browser) ? startBrowser(browser) : null
  started?.catch(() => {})
  const { build } = await import('./build.ts')
  const pageFiles = [page, ...rest]
  const reports = await build({
    pageFiles,
    out: values.out!,
    browser,
    started,
    screens,
    tries: !values['no-try'],
    small: values.small,
    say: (line) => console.error(line),
  })
  // A single page is a plain object, for compatibility.
  if (values.format === 'json') process.stdout.write(JSON.stringify(rest.length ? reports : reports[0], null, 2) + '\n')
  return reports.some((report) => isWrong(report, browser !== undefined && existsSync(browser))) ? 1 : 0
}

/** Screens from comma-separated keys; a message if invalid. */
function screensNamed(keys: string): Screen[] | string {
  const named = [...new Set(keys.split(','))]
  const unknown = named.find((key) => !defaultScreens.some((s) => s.key === key))
  if (unknown !== undefined) return `there is no “${unknown}”; name some of ${defaultScreens.map((s) => s.key).join(', ')}`
  return defaultScreens.filter((s) => named.includes(s.key))
}

main().then(
  (code) => (process.exitCode = code),
  (error: NodeJS.ErrnoException) => {
    const reason =
      error instanceof PageError
        ? error.message
        : error.code === 'ENOENT'
          ? 'there is no such file'
          : error.code === 'EISDIR'
            ? 'this is a folder; give an HTML file in it'
            : error.message
    console.error(`waybell: ${error.path ?? process.argv[3] ?? ''}: ${reason.split('\n')[0]}`)
    process.exitCode = 2
  },
)
