/** Links between pages of a site. */
import { meansFile } from '../page/index.ts'
import type { SitePage } from '../site/index.ts'

/** The page that a path means, seen from the page in `file`. An exact name wins over a folder's index. */
export function pageAt(pages: readonly SitePage[], file: string, path: string): SitePage | undefined {
  const meant = pages.filter((p) => meansFile(file, path, p.file))
  return meant.find((p) => p.file.endsWith(path.split('/').at(-1) || '/')) ?? meant[0]
}
