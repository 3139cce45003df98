/** Goes to the row of an item or link. */
import { linksShown } from './LinksOnPage.tsx'

/** An item's key, or a link's position. */
export type Row = { item: string } | { link: number }

export function goToRow(of: Row): void {
  linksShown.set('all')
  const row = 'item' in of ? `[data-item="${CSS.escape(of.item)}"]` : `:is([data-link="${of.link}"], [data-link^="${of.link} "])`
  // After a closing dialog returned the focus.
  setTimeout(() => {
    // Rows of synced menus have only a label.
    const target = document.querySelector<HTMLElement>(`${row} [aria-haspopup]`) ?? document.querySelector<HTMLElement>(`${row} input`)
    target?.scrollIntoView({ block: 'center' })
    target?.focus()
  }, 60)
}
