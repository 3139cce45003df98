/** Over a small screen beside the one in view: a press brings it into view. Shows its position. */
import { badness, signOf, solveArrivals, type Screen } from '@waybell/core'
import { useMemo } from 'react'
import { useMeasured, useView, useWork } from '../work/context.ts'
import { gapSaid } from '../work/gap.ts'
import { useSignal } from '../work/signal.ts'
import { CAPTION, CAPTION_WIDTH, type Place } from './places.ts'

export function Beside({ screen, place, onShow }: { screen: Screen; place: Place; onShow: (screen: string) => void }) {
  const { page } = useWork()
  const { surveys } = useMeasured()
  const { scrolls } = useView()
  const survey = surveys[screen.key]
  const arrivals = useMemo(() => (survey ? solveArrivals(page, survey) : []), [page, survey])
  // Updates on arrival, not while scrolling.
  const arrived = useSignal(scrolls, (now) => {
    const y = now[screen.key] ?? 0
    return y > 0 ? arrivals.find((a) => Math.abs(a.land - y) <= 1) : undefined
  })
  const section = page.sections.find((s) => s.key === arrived?.section)
  const sign = arrived && section && signOf(arrived, page, section, screen.key)
  const isBad = sign !== undefined && badness(sign.sign) > 0
  const said = sign && gapSaid(sign)
  const { left, top, scale } = place
  const width = screen.width * scale
  return (
    // Keyboard users choose screens by the buttons above.
    <button
      type="button"
      tabIndex={-1}
      aria-hidden
      data-beside={screen.key}
      data-testid="beside"
      title={`Show ${screen.name} large`}
      onClick={() => onShow(screen.key)}
      className="absolute z-3 flex flex-col justify-end text-left"
      style={{ left, top, width: Math.max(width, CAPTION_WIDTH), height: screen.height * scale + CAPTION }}
    >
      <span
        className={`block flex-none border hover:border-teal ${isBad ? 'border-2 border-brick' : 'border-hair'}`}
        style={{ width, height: screen.height * scale }}
      />
      <span className="block overflow-hidden text-xs whitespace-nowrap" style={{ height: CAPTION }}>
        <span className="font-semibold">{screen.name}</span>{' '}
        {said && <span className={isBad ? 'text-brick' : 'text-faint'}>{[said.length, said.word].filter(Boolean).join(' ')}</span>}
      </span>
    </button>
  )
}
