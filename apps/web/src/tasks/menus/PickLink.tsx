/** Picking a link on the live page leads to its row. */
import { useEffect } from 'react'
import { toast } from 'sonner'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'
import { goToRow } from './goToRow.ts'

export function PickLink() {
  const { page, reading, live, picking } = useWork()
  useEffect(() => {
    if (!picking?.isTaken) return
    live.pick(false)
    // What was pressed may stand in the link.
    const link = picking.way.map((e) => reading.links.find((l) => l.at === e.at)).findLast((l) => l !== undefined)
    const item = link && page.menus.flatMap((m) => m.items).find((i) => i.links.includes(link.at))
    if (item) goToRow({ item: item.key })
    else if (link) goToRow({ link: link.at })
    else toast('That is no link, and stands in none. Press a link, or something in one.')
  }, [picking, page, reading, live])
  return (
    <Button aria-pressed={picking !== null} onClick={() => live.pick(picking === null)}>
      {picking === null ? 'Pick a link on the page' : 'Stop picking'}
    </Button>
  )
}
