/** Content that appears some time after loading or measuring: figures are for the page as visitors have it. */
import { expect } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'
import { setUp } from './support/server.ts'
import { bringIn } from './support/sheet.ts'
import { test } from './support/test.ts'

const source = join(repository, 'e2e/pages/field/preloader/index.html')

test('a loading screen blocks no menu, and the command line measures the content after it', async () => {
  const run = await waybellBuilt('build', source, '--out', freshFolder(), '--screens', 'laptop,phone', '--format', 'json')
  const report = JSON.parse(run.stdout) as {
    links: { fault: string | null }[]
    findings: { code: string }[]
  }
  expect(run.code).toBe(0)
  expect(report.links).toHaveLength(4 * 2)
  expect(report.links.filter((l) => l.fault)).toEqual([])
  const codes = report.findings.map((f) => f.code)
  for (const code of ['overlay-blocks', 'link-drifts', 'link-tried']) expect(codes).not.toContain(code)
})

test('a page that changes when a link is followed is measured again', async ({ page, server }) => {
  const grows = readFileSync(source, 'utf8')
    .replace(/setTimeout\(\(\) => document.querySelector\('\.map'\)/, "addEventListener('hashchange', () => document.querySelector('.map')")
    .replace(', 2500)\n', ')\n')
  expect(grows).toContain("'hashchange'")
  const file = test.info().outputPath('grows.html')
  writeFileSync(file, grows)
  await bringIn(page, server, file)
  await setUp(page)
  await expect(page.getByTestId('tried')).toContainText('4 links tried')
  await page.getByRole('button', { name: /\d+ findings?|No findings/ }).click()
  await expect(page.getByText(/where computed|stops \d+ px (above|below) its place/)).toHaveCount(0)
  await expect(page.getByText(/covers the page and blocks/)).toHaveCount(0)
})
