/** `waybell build`: the one press, unattended. `page.ts` builds a page, `measure.ts` drives it in a browser, `report.ts` sums up. */
import type { SitePage } from '@waybell/core'
import { BrowserGone, startBrowser, type DrivenBrowser } from '@waybell/driver'
import { dirname, join, resolve, sep } from 'node:path'
import { buildPage, type PageOptions } from './page.ts'
import type { BuildReport } from './report.ts'

export interface BuildOptions extends Pick<PageOptions, 'screens' | 'tries' | 'small' | 'say'> {
  pageFiles: readonly string[]
  out: string
  browser: string | undefined
  /** The starting browser; null for none. */
  started: Promise<DrivenBrowser> | null
}

const UNMEASURED = 'The script measures on arrival; the style has an estimate.'

/** Builds pages one after the other in one browser. A browser that crashes is restarted once for the page. */
export async function build({ pageFiles, out, browser, started, ...options }: BuildOptions): Promise<BuildReport[]> {
  const { say } = options
  const start = async (isFirst = false): Promise<DrivenBrowser | null> => {
    if (!browser || !started) {
      const why = browser ? `there is no browser at ${browser}` : 'Chromium not found; give its path with --browser or WAYBELL_BROWSER'
      say(`not measured: ${why}. ${UNMEASURED}`)
      return null
    }
    try {
      return await (isFirst ? started : startBrowser(browser))
    } catch (error) {
      say(`not measured: ${String(error).split('\n')[0]}. ${UNMEASURED}`)
      return null
    }
  }
  let driven = await start(true)
  const reports: BuildReport[] = []
  /** Pages of a folder form a site. */
  const sites = new Map<string, SitePage[]>()
  try {
    for (const pageFile of pageFiles) {
      const folder = outOf(pageFile, pageFiles, out)
      const pages = sites.get(folder) ?? []
      sites.set(folder, pages)
      const given = { ...options, pageFile, out: folder, pages }
      for (let attempt = 1; ; attempt++) {
        try {
          reports.push(await buildPage(driven, given))
          if (driven && reports.length === 1) say(`measured in ${driven.name}`)
          break
        } catch (error) {
          if (!(error instanceof BrowserGone)) throw error
          await driven?.close().catch(() => {})
          driven = attempt === 1 ? await start() : null
          if (driven) continue
          say(`${pageFile}: not measured: ${error.message} while it was open. ${UNMEASURED}`)
          reports.push({ ...(await buildPage(null, given)), isMeasured: false })
          driven = await start()
          break
        }
      }
    }
  } finally {
    await driven?.close()
  }
  return reports
}

/** With several pages, each goes into its folder relative to their common one. */
function outOf(pageFile: string, pageFiles: readonly string[], out: string): string {
  const folders = pageFiles.map((f) => dirname(resolve(f)).split(sep))
  const shared = folders[0]!.findIndex((name, n) => folders.some((f) => f[n] !== name))
  const common = shared < 0 ? folders[0]!.length : shared
  return join(out, ...dirname(resolve(pageFile)).split(sep).slice(common))
}
