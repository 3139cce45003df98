/** On the spine: where each link arrives. */
import { Pennant, px } from '../ui/index.tsx'
import { useWork } from '../work/context.ts'
import type { LayerProps } from './task.ts'

export function Arrivals({ scale, inView }: LayerProps) {
  const { page, arrivals } = useWork()
  return page.sections.map((section, index) => {
    const arrival = arrivals.get(section.key)
    if (!arrival?.moves || !inView(arrival.land, arrival.land)) return null
    return (
      <span
        key={section.key}
        data-arrival={section.key}
        className="pointer-events-none absolute flex items-start"
        style={{ top: arrival.land * scale, right: 38 + (index % 2) * 13 }}
        title={`${section.title}: arrives at ${px(arrival.land)}`}
      >
        <Pennant />
      </span>
    )
  })
}
