/** Links across the pages of a site. */
import { meansFile } from '../page/index.ts'
import type { SitePage } from '../site/index.ts'

/** The page of the site that a path means, as the page in `file` writes it. A page of that very name comes before a folder's index. */
export function pageAt(pages: readonly SitePage[], file: string, path: string): SitePage | undefined {
  const meant = pages.filter((p) => meansFile(file, path, p.file))
  return meant.find((p) => p.file.endsWith(path.split('/').at(-1) || '/')) ?? meant[0]
}
