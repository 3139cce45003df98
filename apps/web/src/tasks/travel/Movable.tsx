/** Arrivals on the spine; dragging or keys change the offset. */
import { adjustOn, FILLS, isOwnTravel, leastAdjust, type Arrival, type Section } from '@waybell/core'
import { useMoved } from '../../spine/useMoved.ts'
import { Pennant, px } from '../../ui/index.tsx'
import { useMeasured, useView, useWork } from '../../work/context.ts'
import { toldApart, type LayerProps } from '../task.ts'

/** Max offset of a section, in px, as in its field. */
const MOST = 1000

export function MovableArrivals({ scale, inView }: LayerProps) {
  const { page } = useWork()
  const { arrivals, screen } = useView()
  const marks = page.sections.flatMap((section, index) => {
    const arrival = arrivals.get(section.key)
    return arrival?.movesPage && inView(arrival.land, arrival.land) ? [{ section, arrival, index, y: arrival.land * scale }] : []
  })
  return toldApart(marks).map(({ section, arrival, index, y }) => {
    const right = 38 + (index % 2) * 13
    // Sections at the very top have no offset, and with the page's own offsets none is written.
    const isFixed = section.toTop || section.adjust?.by === FILLS || isOwnTravel(page) || !!section.adjust?.off?.includes(screen.key)
    return isFixed ? (
      <span
        key={section.key}
        data-arrival={section.key}
        className="pointer-events-none absolute flex items-start"
        style={{ top: y, right }}
      >
        <Pennant />
      </span>
    ) : (
      <Movable key={section.key} section={section} arrival={arrival} y={y} right={right} scale={scale} />
    )
  })
}

interface MovableProps {
  section: Section
  arrival: Arrival
  /** On the spine, in px. */
  y: number
  right: number
  scale: number
}

function Movable({ section, arrival, y, right, scale }: MovableProps) {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const { screen, point } = useView()
  // Keys add to the stored value, not the drawn one.
  const now = page.sections.find((s) => s.key === section.key) ?? section
  const by = adjustOn(now, screen.key)
  const off = now.adjust?.off
  const least = leastAdjust(page, now, Object.values(surveys))
  // A higher pennant means a larger offset.
  const above = (moved: number) => Math.min(MOST, Math.max(least, Math.round(by - moved)))
  const move = (moved: number) => {
    const next = above(moved)
    if (next === by) return
    const adjust = next ? { by: next, ...(off && { off }) } : undefined
    run({ type: 'section/adjust', page: page.key, section: section.key, adjust })
  }
  const { dragged, hears } = useMoved(scale, move)
  const shown = dragged === null ? by : above(dragged / scale)
  return (
    <span
      role="slider"
      tabIndex={0}
      data-arrival={section.key}
      aria-label={`Room above ${section.title}`}
      aria-orientation="vertical"
      aria-valuenow={by}
      aria-valuemin={least}
      aria-valuemax={MOST}
      aria-valuetext={`${px(arrival.gap)} between header and section`}
      title={`${section.title}: drag for more or less room above it`}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      {...hears}
      className="absolute z-1 flex min-h-6 min-w-6 cursor-ns-resize touch-none items-start justify-end"
      style={{ top: y + (by - shown) * scale, right }}
    >
      {dragged !== null && (
        <output className="mr-1 rounded-sm bg-sheet px-1 text-xs whitespace-nowrap text-ink tabular-nums shadow">
          {px(arrival.gap + shown - by)}
        </output>
      )}
      <Pennant />
    </span>
  )
}
