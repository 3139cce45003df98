/** Runs the command line as a user does, from a clone. */
import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { browserPath } from './browsers.ts'

export const repository = fileURLToPath(new URL('../..', import.meta.url))

export interface Run {
  code: number
  stdout: string
  stderr: string
}

export const waybell = (...args: string[]): Promise<Run> => run('npm', ['run', '--silent', 'waybell', '--', ...args])

/** The same without npm in between, for many short runs. */
export const waybellBuilt = (...args: string[]): Promise<Run> =>
  run(process.execPath, [join(repository, 'packages/cli/dist/main.js'), ...args])

function run(command: string, args: string[]): Promise<Run> {
  return new Promise((done, failed) => {
    const child = spawn(command, args, { cwd: repository, env: { ...process.env, WAYBELL_BROWSER: browserPath, INIT_CWD: repository } })
    let stdout = ''
    let stderr = ''
    child.stdout.on('data', (chunk: Buffer) => (stdout += chunk.toString()))
    child.stderr.on('data', (chunk: Buffer) => (stderr += chunk.toString()))
    child.on('error', failed)
    child.on('close', (code) => done({ code: code ?? -1, stdout, stderr }))
  })
}

export const freshFolder = (): string => mkdtempSync(join(tmpdir(), 'waybell-e2e-'))
