/** The built server on a disk that fills up, beside other programs, and on what is damaged; a second reader looks after every answer. */
import Sqlite from 'better-sqlite3'
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, openSync, readdirSync, statSync, writeFileSync, writeSync, closeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const main = join(__dirname, '../dist/main.js')
const children: ChildProcess[] = []
afterEach(() => {
  for (const child of children.splice(0)) child.kill('SIGKILL')
})

interface Running {
  address: string
  child: ChildProcess
}

/** @param kilobytes most that any of its files may have */
function start(data: string, kilobytes?: number): Promise<Running> {
  const limit = kilobytes === undefined ? '' : `ulimit -S -f ${kilobytes}; `
  const child = spawn('bash', ['-c', `${limit}exec "$0" "$1"`, process.execPath, main], {
    env: { ...process.env, WAYBELL_DATA: data, WAYBELL_PORT: '0' },
  })
  children.push(child)
  return new Promise((done, failed) => {
    let said = ''
    const hear = (chunk: Buffer) => {
      said += String(chunk)
      const address = /http:\S+\d/.exec(said)?.[0]
      if (address) done({ address, child })
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.on('exit', (code) => failed(new Error(`exit ${code}: ${said}`)))
  })
}

const stop = ({ child }: Running, signal: NodeJS.Signals = 'SIGTERM') =>
  new Promise<void>((done) => {
    child.on('exit', () => done())
    child.kill(signal)
  })

const folder = () => mkdtempSync(join(tmpdir(), 'waybell-disk-'))
const ask = async (address: string, path: string, body?: object, method = body ? 'POST' : 'GET') => {
  const response = await fetch(`${address}/api/${path}`, {
    method,
    ...(body ? { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } } : {}),
  })
  const text = await response.text()
  return {
    status: response.status,
    body: (text ? JSON.parse(text) : null) as { key: string; version: number; code: string; message: string },
  }
}

async function aSite(address: string): Promise<string> {
  const form = new FormData()
  form.set('html', '<main><section id="a"><h2>A</h2></section></main>')
  const response = await fetch(`${address}/api/sites`, { method: 'POST', body: form })
  return ((await response.json()) as { key: string }).key
}

let sent = 0
/** A change of several kilobytes. */
const rename = (address: string, key: string, baseVersion: number) =>
  ask(address, `sites/${key}/changes`, {
    idempotencyKey: `change-number-${++sent}`,
    baseVersion,
    command: { type: 'site/rename', name: `${sent} `.padEnd(200, 'name ') },
    undoes: null,
  })

/** What stands on the disk, for another program. */
function stored(data: string, key: string): { version: number; log: number } {
  const reader = new Sqlite(join(data, 'waybell.sqlite'), { readonly: true })
  try {
    return {
      ...(reader.prepare('SELECT version FROM site WHERE key = ?').get(key) as { version: number }),
      ...(reader.prepare('SELECT count(*) AS log FROM change WHERE site = ?').get(key) as { log: number }),
    }
  } finally {
    reader.close()
  }
}

it('everything confirmed as stored is stored on a full disk, and work goes on once there is space', async () => {
  const data = folder()
  let running = await start(data)
  const key = await aSite(running.address)
  await stop(running)
  const largest = Math.max(...readdirSync(data).map((f) => statSync(join(data, f)).size))

  running = await start(data, Math.ceil(largest / 1024) + 120)
  let version = 0
  let refused = 0
  for (let i = 0; i < 120 && refused < 25; i++) {
    const { status, body } = await rename(running.address, key, version)
    if (status === 200) version = body.version
    else {
      refused++
      expect([status, body.code]).toEqual([507, expect.stringMatching(/^disk-/)])
      expect(body.message).toContain('nothing of this was stored')
    }
    expect(stored(data, key)).toEqual({ version, log: version })
    expect((await ask(running.address, `sites/${key}`)).body.version).toBe(version)
  }
  expect(refused).toBeGreaterThan(0)
  const upload = new FormData()
  upload.set('html', `<h1>Large</h1>${'<p>words</p>'.repeat(40_000)}`)
  expect((await fetch(`${running.address}/api/sites`, { method: 'POST', body: upload })).status).toBe(507)

  expect(spawnSync('prlimit', ['--pid', String(running.child.pid), '--fsize=unlimited']).status).toBe(0)
  for (let i = 0; i < 5; i++) {
    const { status, body } = await rename(running.address, key, version)
    expect(status).toBe(200)
    version = body.version
    expect(stored(data, key)).toEqual({ version, log: version })
  }
  await stop(running, 'SIGKILL')
  running = await start(data)
  expect((await ask(running.address, `sites/${key}`)).body.version).toBe(version)
})

it('a database that another program holds is reported, and nothing is lost', async () => {
  const data = folder()
  const { address } = await start(data)
  const key = await aSite(address)
  const other = new Sqlite(join(data, 'waybell.sqlite'))
  other.exec('BEGIN IMMEDIATE')
  expect(await rename(address, key, 0)).toMatchObject({ status: 503, body: { code: 'database-locked' } })
  expect((await ask(address, `sites/${key}`)).body.version).toBe(0)
  other.exec('ROLLBACK')
  other.close()
  expect(await rename(address, key, 0)).toMatchObject({ status: 200, body: { version: 1 } })
  expect(stored(data, key)).toEqual({ version: 1, log: 1 })
})

it('a page can be downloaded although nothing can be stored; the next time it is recorded', async () => {
  const data = folder()
  const { address } = await start(data)
  const key = await aSite(address)
  const section = { key: 's1', at: 6, point: null, title: 'A', id: 'b', sourceId: 'a', former: [], heading: null, depth: 0, toTop: false }
  const travel = { smooth: true, breathing: 0 }
  const setUp = { sections: [section], menus: [], header: null, travel, highlight: { bellOffset: 0 } }
  const command = { type: 'page/set-up', page: 'p1', setUp }
  const made = { idempotencyKey: 'change-number-set-up', baseVersion: 0, command, undoes: null }
  expect((await ask(address, `sites/${key}/changes`, made)).status).toBe(200)
  const take = async () => {
    const page = await fetch(`${address}/api/sites/${key}/pages/p1/handover/page`, { method: 'POST' })
    return [page.status, (await page.text()).includes('<section id="b">')]
  }
  const other = new Sqlite(join(data, 'waybell.sqlite'))
  other.exec('BEGIN IMMEDIATE')
  expect(await take()).toEqual([200, true])
  other.exec('ROLLBACK')
  other.close()
  expect((await ask(address, `sites/${key}/pages/p1/handovers`)).body).toEqual([])
  expect(await take()).toEqual([200, true])
  expect((await ask(address, `sites/${key}/pages/p1/handovers`)).body).toMatchObject([{ version: 1, ids: ['b'] }])
})

it('a damaged database is reported with its cause, not as a server error', async () => {
  const data = folder()
  const running = await start(data)
  const key = await aSite(running.address)
  await stop(running)
  expect(existsSync(join(data, 'waybell.sqlite-wal'))).toBe(false)
  const file = join(data, 'waybell.sqlite')
  const handle = openSync(file, 'r+')
  for (let at = 4096; at < statSync(file).size; at += 4096) writeSync(handle, Buffer.alloc(2000, 0x5a), 0, 2000, at)
  closeSync(handle)
  const outcome = await start(data).then(
    async ({ address }) => (await ask(address, `sites/${key}`)).body.message,
    (error: Error) => error.message,
  )
  expect(outcome).toContain('is damaged')
  expect(outcome).toContain('put a copy of it in its place')
})

it('a folder has only one server', async () => {
  const data = folder()
  const first = await start(data)
  await expect(start(data)).rejects.toThrow(/exit 1: Another Way Bell works on .*WAYBELL_DATA/s)
  await stop(first, 'SIGKILL')
  await start(data)
})

/** The command as `npm run` calls it. */
const copies = (what: 'copy' | 'restore', folder: string, data: string) =>
  spawnSync(process.execPath, [join(__dirname, '../dist/copies.js'), what, folder], {
    env: { ...process.env, WAYBELL_DATA: data, INIT_CWD: tmpdir() },
    encoding: 'utf8',
  })

it('all data is copied while the server runs, and restored', async () => {
  const data = folder()
  let running = await start(data)
  const key = await aSite(running.address)
  await rename(running.address, key, 0)
  const copy = join(folder(), 'copy')
  expect(copies('copy', copy, data)).toMatchObject({ status: 0, stdout: expect.stringContaining('is copied to') })
  expect(copies('copy', copy, data)).toMatchObject({ status: 1, stderr: expect.stringContaining('is not empty') })
  await rename(running.address, key, 1)
  expect(copies('restore', copy, data)).toMatchObject({ status: 1, stderr: expect.stringContaining('Another Way Bell works on') })
  await stop(running, 'SIGKILL')

  expect(copies('restore', copy, data)).toMatchObject({ status: 0, stdout: expect.stringContaining('is kept as waybell-before-') })
  running = await start(data)
  expect((await ask(running.address, `sites/${key}`)).body.version).toBe(1)
  // What it took the place of is whole too.
  const kept = readdirSync(data).find((f) => f.startsWith('waybell-before-'))!
  const before = new Sqlite(join(data, kept), { readonly: true })
  expect(before.prepare('SELECT version FROM site WHERE key = ?').get(key)).toEqual({ version: 2 })
  before.close()

  await stop(running, 'SIGKILL')
  // One that is damaged is kept as it is, and a copy takes its place.
  writeFileSync(join(data, 'waybell.sqlite'), 'no database any more')
  expect(copies('restore', copy, data)).toMatchObject({ status: 0 })
  running = await start(data)
  expect((await ask(running.address, `sites/${key}`)).body.version).toBe(1)

  writeFileSync(join(copy, 'waybell.sqlite'), 'no database')
  expect(copies('restore', copy, data)).toMatchObject({ status: 1, stderr: expect.stringContaining('is damaged') })
})

it('listens on loopback only, and says what another address would need', () => {
  const { status, stderr } = spawnSync(process.execPath, [main], {
    env: { ...process.env, WAYBELL_DATA: folder(), WAYBELL_HOST: '0.0.0.0' },
    encoding: 'utf8',
  })
  expect([status, stderr]).toEqual([1, expect.stringContaining('HTTPS, and an access key')])
})
