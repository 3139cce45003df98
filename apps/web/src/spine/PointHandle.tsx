/** A point on the spine: a hollow diamond, moved by dragging or keys. */
import type { Section } from '@waybell/core'
import { px } from '../ui/index.tsx'
import { useView, useWork } from '../work/context.ts'
import { useMoved } from './useMoved.ts'

/** @param top of the point in the document, in px */
export function PointHandle({ section, top, scale }: { section: Section; top: number; scale: number }) {
  const { page, run } = useWork()
  const { point } = useView()
  // The spine may lag: keys add to the point's actual position, not the drawn one.
  const now = page.sections.find((s) => s.key === section.key) ?? section
  const shift = now.point?.shift ?? 0
  const move = (by: number) => {
    if (by !== 0) run({ type: 'section/point', page: page.key, section: section.key, at: now.at, shift: Math.round(shift + by) })
  }
  const { dragged, hears } = useMoved(scale, move)
  return (
    <span
      role="slider"
      tabIndex={0}
      aria-label={`Point ${section.title}`}
      aria-orientation="vertical"
      aria-valuenow={Math.round(shift)}
      aria-valuemin={-2000}
      aria-valuemax={20000}
      aria-valuetext={`${px(shift)} below the element’s top`}
      title={`${section.title}: drag to move`}
      data-point={section.key}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      {...hears}
      className="absolute left-2 z-1 flex h-6 w-24 -translate-y-1/2 cursor-ns-resize touch-none items-center gap-1"
      style={{ top: top * scale + (dragged ?? 0) }}
    >
      <svg aria-hidden width="12" height="12" viewBox="0 0 10 10" className="flex-none">
        <path d="M5 .8 9.2 5 5 9.2.8 5z" fill="var(--color-sheet)" stroke="var(--color-teal)" strokeWidth="1.6" />
      </svg>
      <span className="h-px flex-1 bg-teal" />
    </span>
  )
}
