/** The Nu checker on every page there is here, as it came and as it is handed over: nothing new may be said of it. */
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { broughtIn, changed, everyPage } from './builder.ts'

interface Message {
  url: string
  type: string
  subType?: string
  message: string
}

const STATES = ['came', 'handed-over', 'renamed'] as const
let said: Map<string, string[]>
/** Of each page: whether its own policy stops what stands in it. */
const isBlocked: boolean[] = []

beforeAll(() => {
  const folder = mkdtempSync(join(tmpdir(), 'wb-nu-'))
  try {
    everyPage.forEach(([, file], i) => {
      const came = new Uint8Array(readFileSync(file))
      const { page, reading, handOver } = broughtIn(came, file)
      isBlocked[i] = reading.policy !== null
      const bytes = { came, 'handed-over': handOver(page).bytes, renamed: handOver(changed(page)).bytes }
      for (const state of STATES) {
        mkdirSync(join(folder, state), { recursive: true })
        writeFileSync(join(folder, state, `${i}.html`), bytes[state])
      }
    })
    const jar = join(process.cwd(), 'node_modules/vnu-jar/build/dist/vnu.jar')
    // What it finds goes to standard output, and with --exit-zero-always only a failure of its own is an error.
    const args = ['-jar', jar, '--format', 'json', '--stdout', '--exit-zero-always', '--skip-non-html', folder]
    const { messages } = JSON.parse(execFileSync('java', args, { maxBuffer: 1 << 28, encoding: 'utf8' })) as { messages: Message[] }
    said = new Map()
    for (const { url, type, subType, message } of messages) {
      if (type === 'non-document-error') throw new Error(`${url}: ${message}`)
      const [, state, name] = /\/([^/]+)\/(\d+)\.html$/.exec(url)!
      const key = `${state} ${name}`
      said.set(key, [...(said.get(key) ?? []), `${subType ?? type}: ${message}`])
    }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})

it('has looked at the pages', () => expect([...said.keys()].filter((k) => k.startsWith('came')).length).toBeGreaterThan(20))

/** Its list of properties does not know CSS anchor positioning, which former IDs and points have that find no element of their own. */
const ANCHORING =
  /^error: CSS: “(anchor-name|position-anchor|left|top)”: (Property “(anchor-name|position-anchor)” doesn't exist|“anchor\(|Parse Error)/
/** It only says so where there is text enough to tell a language by, and a menu is text; on a page of few words so are the names in our settings. */
const NO_LANGUAGE = /Consider (adding (a )?|using )“lang/

/** That a page's own policy blocks what it is given is told by a finding. */
const POLICY = /^warning: Inline (script|style) violates Content Security Policy/

/** What is said of the second and not, or not as often, of the first. */
function added(before: readonly string[], after: readonly string[]): string[] {
  const left = [...before]
  return after.filter((m) => {
    const at = left.indexOf(m)
    if (at >= 0) left.splice(at, 1)
    return at < 0
  })
}

it.each(everyPage.map(([name], i) => [name, i] as const))('%s', (_, i) => {
  const came = said.get(`came ${i}`) ?? []
  for (const state of STATES.slice(1)) {
    const after = said.get(`${state} ${i}`) ?? []
    const known = [ANCHORING, NO_LANGUAGE, ...(isBlocked[i] ? [POLICY] : [])]
    expect(added(came, after).filter((m) => !known.some((k) => k.test(m)))).toEqual([])
  }
})
