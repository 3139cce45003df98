/** Menus: items, labels, order and targets, and coverage. */
import { builtOf } from '@waybell/core'
import { useEffect } from 'react'
import { useLocation } from 'react-router'
import { Heading } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { CoverageDialog } from './CoverageDialog.tsx'
import { goToRow, type Row } from './goToRow.ts'
import { LinksOnPage } from './LinksOnPage.tsx'
import { MakeMenu } from './MakeMenu.tsx'
import { MenuSheet } from './MenuSheet.tsx'
import { PickedPart, PickLink } from './PickLink.tsx'

export function MenusTask() {
  const { page } = useWork()
  // From another page's coverage.
  const row = (useLocation().state as { row?: Row } | null)?.row
  useEffect(() => {
    if (row) goToRow(row)
  }, [row])
  if (!page.sections.length)
    return (
      <>
        <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
        <BuiltMenus />
      </>
    )
  return (
    <>
      <p className="mb-2 flex items-center gap-2">
        <MakeMenu />
        <PickLink />
        <span className="ml-auto">
          <CoverageDialog />
        </span>
      </p>
      <PickedPart />
      {page.menus.map((menu) => (
        <MenuSheet key={menu.key} menu={menu} />
      ))}
      <BuiltMenus />
      <LinksOnPage />
    </>
  )
}

/** Script-built menus are shown as seen; they can't be edited. */
function BuiltMenus() {
  const { page } = useWork()
  const { surveys } = useMeasured()
  const titles = new Map(page.sections.map((s) => [s.at, s.title]))
  return builtOf(Object.values(surveys)).menus.map(({ at, links }, n) => (
    <section key={n} aria-label={`Menu ${n + 1} built by a script`} className="mt-4">
      <Heading aside={<span className="text-xs text-faint">built by a page script</span>}>{links.length} links in no file</Heading>
      <p className="mb-1 text-sm text-faint">
        They’re tried too{at === null ? ', and not marked' : ', and the current one is marked'}. To change them, change the script.
      </p>
      <List count={links.length} estimate={28} label={`Links built by a script, ${n + 1}`}>
        {(i) => {
          const { label, href, target, arrives } = links[i]!
          return (
            <p className="flex gap-2 border-b border-hair py-0.5 text-sm">
              <span className="min-w-0 flex-1 font-semibold">{label}</span>
              <span className={`min-w-0 flex-1 ${arrives ? '' : 'text-brick'}`}>
                → {titles.get(target ?? -1) ?? href}
                {arrives ? '' : ', which is not there'}
              </span>
            </p>
          )
        }}
      </List>
    </section>
  ))
}
