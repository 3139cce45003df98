/** Commands on whole pages. */
import { inPageOrder, pageOf, type SitePage } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { checkFree, insert, onPage, type KindsOf } from './kind.ts'
import { pageShape, revisionShape, setUpShape } from './shapes.ts'

/** What the one press decides. */
export type SetUp = Pick<
  SitePage,
  'sections' | 'menus' | 'links' | 'motions' | 'endSpace' | 'pictures' | 'header' | 'scroller' | 'travel' | 'highlight'
>

export type PageCommand =
  | { type: 'page/add'; page: SitePage; index: number }
  | { type: 'page/drop'; page: string }
  | { type: 'page/set-up'; page: string; setUp: SetUp }
  /** Takes a new version of the source over. */
  | { type: 'page/revise'; page: string; revision: SetUp & Pick<SitePage, 'source' | 'title'> }

/** What remains of a page that is set up again. */
const bare = ({ key, file, source, title }: SitePage) => ({ key, file, source, title })
const sorted = <T extends { sections: SitePage['sections'] }>(holder: T): T => ({ ...holder, sections: inPageOrder(holder.sections) })
/** A page's set-up, as it is now. */
export const setUpOf = ({ sections, menus, links, motions, endSpace, pictures, header, scroller, travel, highlight }: SitePage): SetUp => ({
  sections,
  menus,
  ...(links ? { links } : {}),
  ...(motions ? { motions } : {}),
  ...(endSpace ? { endSpace } : {}),
  ...(pictures ? { pictures } : {}),
  header,
  ...(scroller === undefined ? {} : { scroller }),
  travel,
  highlight,
})

export const pageCommands: KindsOf<PageCommand> = {
  'page/add': {
    name: 'Add a page',
    payload: (s) => ({ page: pageShape(s), index: s.index }),
    touches: ({ page }) => ({ writes: ['pages', `page/${page.key}/*`] }),
    apply: (site, { page, index }) => {
      checkFree(site.pages, page.key, `the site has a page with the key “${page.key}” already`)
      return { site: { ...site, pages: insert(site.pages, index, sorted(page)) }, inverse: { type: 'page/drop', page: page.key } }
    },
  },
  'page/drop': {
    name: 'Remove a page',
    payload: (s) => ({ page: s.key }),
    touches: ({ page }) => ({ writes: ['pages', `page/${page}/*`] }),
    apply: (site, c) => {
      const page = pageOf(site, c.page)
      if (site.pages.length === 1) throw new CommandError('a site has at least one page; remove the site instead')
      return {
        site: { ...site, pages: site.pages.filter((p) => p !== page) },
        inverse: { type: 'page/add', page, index: site.pages.indexOf(page) },
      }
    },
  },
  'page/set-up': {
    name: 'Set everything up',
    payload: (s) => ({ page: s.key, setUp: setUpShape(s) }),
    touches: ({ page }) => ({ writes: [`page/${page}/*`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({ page: { ...bare(page), ...sorted(c.setUp) }, inverse: { ...c, setUp: setUpOf(page) } })),
  },
  'page/revise': {
    name: 'Take over a new version',
    payload: (s) => ({ page: s.key, revision: revisionShape(s) }),
    touches: ({ page }) => ({ writes: [`page/${page}/*`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...bare(page), ...sorted(c.revision) },
        inverse: { ...c, revision: { ...setUpOf(page), source: page.source, title: page.title } },
      })),
  },
}
