/** Runs the command line as a user does, from a clone. */
import { spawn } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { browserPath } from './browsers.ts'

export const repository = fileURLToPath(new URL('../..', import.meta.url))

export interface Run {
  code: number
  stdout: string
  stderr: string
}

export const waybell = (...args: string[]): Promise<Run> => run('npm', ['run', '--silent', 'waybell', '--', ...args])

/** The same without npm, for many short runs. */
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

/** A page of this repository as handed over, without tries; built by the first test that needs it. @returns a copy of the file */
export async function handedOver(source: string): Promise<string> {
  const folder = join(process.env.WAYBELL_BUILT!, source.slice(repository.length).replaceAll('/', '~'))
  const done = `${folder}.done`
  if (isFirst(folder)) {
    const { stderr } = await waybellBuilt('build', source, '--out', folder, '--no-try')
    writeFileSync(done, existsSync(join(folder, basename(source))) ? '' : stderr)
  }
  while (!existsSync(done)) await pause(100)
  const wrong = readFileSync(done, 'utf8')
  if (wrong) throw new Error(wrong)
  const out = freshFolder()
  cpSync(folder, out, { recursive: true })
  return join(out, basename(source))
}

function isFirst(folder: string): boolean {
  try {
    mkdirSync(folder)
    return true
  } catch {
    return false
  }
}

export const freshFolder = (): string => mkdtempSync(join(tmpdir(), 'waybell-e2e-'))
