/** Pages made from seeds: every link stops and lights as computed, or the build says so. `npm run bench -- --generated` has 200 others. */
import { expect, test } from '@playwright/test'
import { spawn } from 'node:child_process'
import { browserPath } from './support/browsers.ts'
import { repository } from './support/cli.ts'

const COUNT = 2

for (const from of [1, 3, 5, 7, 9, 11, 13, 15, 17, 19])
  test(`generated pages ${from} to ${from + COUNT - 1} arrive and light as computed, or are told`, async () => {
    const args = ['scripts/generated.mjs', '--from', String(from), '--count', String(COUNT)]
    const { code, said } = await new Promise<{ code: number | null; said: string }>((done) => {
      const child = spawn(process.execPath, args, { cwd: repository, env: { ...process.env, WAYBELL_BROWSER: browserPath } })
      let said = ''
      child.stdout.on('data', (data: Buffer) => (said += data.toString()))
      child.stderr.on('data', (data: Buffer) => (said += data.toString()))
      child.on('close', (code) => done({ code, said }))
    })
    expect(code, said).toBe(0)
    expect(said).toContain(`${COUNT} of ${COUNT} pages are right.`)
    expect(said.match(/links walked/g)).toHaveLength(COUNT)
  })
