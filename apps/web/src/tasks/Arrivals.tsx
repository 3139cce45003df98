/** Arrivals on the spine. */
import { Pennant } from '../ui/index.tsx'
import { useView, useWork } from '../work/context.ts'
import { toldApart, type LayerProps } from './task.ts'

export function Arrivals({ scale, inView }: LayerProps) {
  const { page } = useWork()
  const { arrivals } = useView()
  const marks = page.sections.flatMap((section, index) => {
    const arrival = arrivals.get(section.key)
    return arrival?.movesPage && inView(arrival.land, arrival.land) ? [{ section, index, y: arrival.land * scale }] : []
  })
  return toldApart(marks).map(({ section, index, y }) => (
    <span
      key={section.key}
      data-arrival={section.key}
      className="pointer-events-none absolute flex items-start"
      style={{ top: y, right: 38 + (index % 2) * 13 }}
    >
      <Pennant />
    </span>
  ))
}
