/** Leads to the row of an item, or of a link on the page. */
import { linksShown } from './LinksOnPage.tsx'

/** An item's key, or where a link stands. */
export type Row = { item: string } | { link: number }

export function goToRow(of: Row): void {
  linksShown.set('all')
  const row = 'item' in of ? `[data-item="${CSS.escape(of.item)}"]` : `:is([data-link="${of.link}"], [data-link^="${of.link} "])`
  // When what was open before has given the focus back.
  setTimeout(() => {
    // A row of a menu in step has its label alone.
    const target = document.querySelector<HTMLElement>(`${row} [aria-haspopup]`) ?? document.querySelector<HTMLElement>(`${row} input`)
    target?.scrollIntoView({ block: 'center' })
    target?.focus()
  }, 60)
}
