/** `waybell build`: the one press, unattended, and the page with everything in it. */
import {
  defaultRule,
  defaultScreens,
  pageEdits,
  parsePage,
  proposeSetUp,
  readParsed,
  SITE_VERSION,
  writePage,
  type Site,
  type SitePage,
  type Survey,
} from '@waybell/core'
import { runtimeText } from '@waybell/runtime'
import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { localFiles } from './files.ts'
import { measure } from './measure.ts'

export interface BuildOptions {
  pageFile: string
  out: string
  browser: string | undefined
  say: (line: string) => void
}

export async function build({ pageFile, out, browser, say }: BuildOptions): Promise<void> {
  const bytes = new Uint8Array(readFileSync(pageFile))
  const file = basename(pageFile)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, file)
  const { found, missing } = localFiles(pageFile, reading)
  for (const path of missing) say(`missing: the page needs “${path}”, which is not there`)
  const surveys = await survey()
  const setUp = proposeSetUp(reading, Object.values(surveys), defaultRule, new Set(readdirSync(dirname(resolve(pageFile)))))
  const page: SitePage = { key: 'p1', file, source: createHash('sha256').update(bytes).digest('hex'), title: reading.title, ...setUp }
  const site: Site = {
    format: 'way-bell-site',
    version: SITE_VERSION,
    name: reading.title || file,
    rule: defaultRule,
    screens: defaultScreens,
    pages: [page],
  }
  const edits = pageEdits({ page, pages: site.pages, reading, screens: site.screens, surveys, runtime: runtimeText })
  const handover = writePage(bytes, parsed, edits)
  mkdirSync(out, { recursive: true })
  for (const asset of found) {
    if (asset.path.startsWith('..')) {
      say(`not copied: “${asset.path}” lies outside the page's folder; put it in the same place beside ${out}`)
      continue
    }
    const to = join(out, asset.path)
    if (resolve(to) === resolve(asset.file)) continue
    mkdirSync(dirname(to), { recursive: true })
    copyFileSync(asset.file, to)
  }
  writeWhole(join(out, file), handover.bytes)
  writeWhole(join(out, 'site.json'), JSON.stringify(site, null, 2) + '\n')
  if (!setUp.sections.length) say('no sections: the page has no part that a menu could lead to')
  say(`${join(out, file)}: ${setUp.sections.length} sections, ${setUp.menus.flatMap((m) => m.items).length} menu items`)

  async function survey(): Promise<Record<string, Survey>> {
    if (!browser || !existsSync(browser)) {
      say(
        `not measured: ${browser ? `there is no browser at ${browser}` : 'no Chromium was found; name one with --browser or WAYBELL_BROWSER'}. The script measures on arrival, the style carries an estimate.`,
      )
      return {}
    }
    try {
      return await measure({ pageFile, bytes, parsed, reading, files: found, screens: defaultScreens, browser })
    } catch (error) {
      say(`not measured: ${String(error).split('\n')[0]}. The script measures on arrival, the style carries an estimate.`)
      return {}
    }
  }
}

/** Whole or not at all, so that a full disk leaves no half page. */
function writeWhole(file: string, content: Uint8Array | string): void {
  writeFileSync(`${file}.part`, content)
  renameSync(`${file}.part`, file)
}
