/** The demo's first state: landing page, travel page and lantern walk with menus; last year's page as it came. */
import {
  apply,
  makeMenu,
  newForm,
  pageOf,
  setUpPages,
  takeToPages,
  type Command,
  type FormKind,
  type Item,
  type MadeMenu,
  type PageReading,
  type Site,
  type SitePage,
} from '@waybell/core'

/** @param read the pages' readings, by file */
export function demoSite(site: Site, read: readonly { file: string; reading: PageReading }[]): Site {
  const page = (file: string): SitePage => site.pages.find((p) => p.file === file)!
  const keys = { landing: page('index.html').key, travel: page('travel.html').key, walk: page('lantern-walk.html').key }
  const readings = new Map(read.map(({ file, reading }) => [page(file).key, reading]))
  let now = site
  const run = (command: Command) => void (now = apply(now, command).site)
  const add = (to: string, name: string, kind: FormKind, more: (menu: MadeMenu, page: SitePage) => Partial<MadeMenu>): MadeMenu => {
    const on = pageOf(now, to)
    const menu = { ...makeMenu(on, newForm(kind, on.sections, [])), name }
    const made = { ...menu, ...more(menu, on) }
    run({ type: 'menu/add', page: to, index: on.menus.length, menu: made })
    return made
  }
  const top = ({ key }: MadeMenu): Item => ({ key: `${key}-top`, label: 'Back to top', target: { kind: 'top' }, links: [] })

  run(
    setUpPages(
      now,
      Object.values(keys).map((key) => ({ page: key, reading: readings.get(key)!, surveys: [] })),
    ),
  )

  const footer = add(keys.landing, 'Foot of the page', 'footer', (_, { key, menus }) => ({
    form: { kind: 'footer', layout: 'row', edge: 24 },
    syncedWith: { page: key, menu: menus[0]!.key, labels: [] },
    items: [],
  }))
  // On screens that show a whole section, step links aren't needed.
  add(keys.landing, 'Onwards', 'steps', () => ({ shown: { off: ['laptop', 'desk'] } }))
  add(keys.landing, 'Up again', 'corner', (menu, { sections }) => ({ shown: { from: sections[1]!.key }, grows: false, items: [top(menu)] }))
  run(
    takeToPages(pageOf(now, keys.landing), pageOf(now, keys.landing).menus.find((m) => m.key === footer.key) as MadeMenu, [
      pageOf(now, keys.travel),
    ]),
  )

  // A story has its stations at the side, without a bar.
  for (const { key } of pageOf(now, keys.walk).menus) run({ type: 'menu/drop', page: keys.walk, menu: key })
  add(keys.walk, 'Stations', 'marks', () => ({ shown: { holds: 'visit' } }))
  add(keys.walk, 'Next station', 'steps', (menu) => ({
    items: [...menu.items, { ...top(menu), label: 'Back to the boat' }],
    look: { ink: '#221a06', ground: '#e8b04a' },
  }))
  return now
}
