/** On the spine: the bell of each section. */
import { bellMap } from '@waybell/core'
import { Dome, px } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'
import type { LayerProps } from '../task.ts'

export function Bells({ survey, scale, inView }: LayerProps) {
  const { page } = useWork()
  return bellMap(page, survey).map(({ section, start }) =>
    section === null || !inView(start, start) ? null : (
      <span
        key={section}
        data-bell={section}
        className="pointer-events-none absolute right-10"
        style={{ top: start * scale - 4 }}
        title={`bell at ${px(start)}`}
      >
        <Dome />
      </span>
    ),
  )
}
