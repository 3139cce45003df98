/** Bells on the spine. */
import { bellMap } from '@waybell/core'
import { Dome } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'
import { toldApart, type LayerProps } from '../task.ts'

export function Bells({ survey, scale, inView }: LayerProps) {
  const { page } = useWork()
  const marks = bellMap(page, survey).flatMap(({ section, start }) =>
    section === null || !inView(start, start) ? [] : [{ section, y: start * scale }],
  )
  return toldApart(marks).map(({ section, y }) => (
    <span key={section} data-bell={section} className="pointer-events-none absolute right-10" style={{ top: y - 4 }}>
      <Dome />
    </span>
  ))
}
