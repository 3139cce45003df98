/** What lies over a screen that stands small beside the one in view: pressed, it is the one in view. Under it stands where it is. */
import { solveArrivals, type Arrival, type Screen } from '@waybell/core'
import { useMemo } from 'react'
import { px } from '../ui/index.tsx'
import { useWork } from '../work/context.ts'
import { useSignal } from '../work/signal.ts'
import { CAPTION, type Place } from './places.ts'

export function Beside({ screen, place, onShow }: { screen: Screen; place: Place; onShow: (screen: string) => void }) {
  const { page, surveys, scrolls } = useWork()
  const survey = surveys[screen.key]
  const arrivals = useMemo(() => (survey ? solveArrivals(page, survey) : []), [page, survey])
  // Drawn again where it arrives, and not while it is scrolled.
  const arrived = useSignal(scrolls, (now) => {
    const y = now[screen.key] ?? 0
    return y > 0 ? arrivals.find((a) => Math.abs(a.land - y) <= 1) : undefined
  })
  const isBad = arrived !== undefined && isCovered(arrived)
  const { left, top, scale } = place
  const width = screen.width * scale
  return (
    // The screens can be chosen by their names above; by keys that is enough.
    <button
      type="button"
      tabIndex={-1}
      aria-hidden
      data-beside={screen.key}
      data-testid="beside"
      title={`Show ${screen.name} large`}
      onClick={() => onShow(screen.key)}
      className="absolute z-3 flex flex-col justify-end text-left"
      style={{ left, top, width: Math.max(width, 60), height: screen.height * scale + CAPTION }}
    >
      <span
        className={`block flex-none border hover:border-teal ${isBad ? 'border-2 border-brick' : 'border-hair'}`}
        style={{ width, height: screen.height * scale }}
      />
      <span className="block overflow-hidden text-xs whitespace-nowrap" style={{ height: CAPTION }}>
        <span className="font-semibold">{screen.name}</span>{' '}
        {arrived && <span className={isBad ? 'text-brick' : 'text-faint'}>{said(arrived)}</span>}
      </span>
    </button>
  )
}

const isCovered = ({ heading }: Arrival) => heading === 'covered' || heading === 'cut'

/** What is between header and section, in short. */
const said = (arrival: Arrival): string =>
  isCovered(arrival) ? `heading ${arrival.heading}` : arrival.shortfall > 0 ? `${px(arrival.shortfall)} short` : px(arrival.gap)
