/** On the spine before the press: the parts that would become sections. */
import { coverOf, partsByAt, type Survey } from '@waybell/core'
import { useView, useWork } from '../work/context.ts'

/** Lower bands have no title, in px. */
const TEXT_HEIGHT = 15

export function FoundBands({ survey, scale }: { survey: Survey; scale: number }) {
  const { page, reading } = useWork()
  const { live } = useView()
  const parts = partsByAt(survey)
  return reading.candidates.flatMap(({ at, offered, title }) => {
    const part = offered ? parts.get(at) : undefined
    if (!part?.hasBox) return []
    const height = (part.bottom - part.top) * scale
    return (
      <div
        key={at}
        data-found={at}
        title={`${title}: found, not a section yet`}
        onClick={() => live.scrollTo(Math.max(0, part.top - coverOf(page, survey).arrival))}
        className="absolute inset-x-0 cursor-pointer overflow-hidden border-t border-dashed border-faint"
        style={{ top: part.top * scale, height: Math.max(2, height), background: part.grounds[0] ?? part.background }}
      >
        {height >= TEXT_HEIGHT && (
          <span className="absolute top-0.5 left-2 max-w-[132px] truncate rounded-sm bg-sheet/90 px-1 text-xs leading-[14px] text-ink">
            {title}
          </span>
        )}
      </div>
    )
  })
}
