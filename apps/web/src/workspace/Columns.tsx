/** Sheet, spine and live page side by side, with movable edges that are remembered. */
import { useSyncExternalStore, type ReactNode } from 'react'
import { useKept } from '../ui/useKept.ts'
import { Splitter } from './Splitter.tsx'

/** Widths in px. */
const SHEET = { min: 340, usual: 0.33, most: 640 }
const SPINE = { min: 120, usual: 200, max: 400 }
/** Min width of the live page. */
const PAGE = 360

const onResize = (tell: () => void) => {
  addEventListener('resize', tell)
  return () => removeEventListener('resize', tell)
}

const between = (least: number, n: number, most: number) => Math.max(least, Math.min(n, most))

export function Columns({ isNarrow, children }: { isNarrow: boolean; children: ReactNode }) {
  const width = useSyncExternalStore(onResize, () => innerWidth)
  const [keptSheet, keepSheet] = useKept<number | null>('sheet-width', null)
  const [keptSpine, keepSpine] = useKept<number | null>('spine-width', null)
  const spine = between(SPINE.min, keptSpine ?? SPINE.usual, SPINE.max)
  const most = Math.max(SHEET.min, width - spine - PAGE)
  const sheet = Math.round(between(SHEET.min, keptSheet ?? Math.min(width * SHEET.usual, SHEET.most), most))
  return (
    <div
      className="relative grid min-h-0 flex-1"
      style={{ gridTemplateColumns: isNarrow ? 'minmax(0, 1fr) clamp(90px, 22vw, 200px)' : `${sheet}px ${spine}px minmax(0, 1fr)` }}
    >
      {children}
      {!isNarrow && (
        <section aria-label="Column widths" className="contents">
          <Splitter label="Width of the work" at={sheet} width={sheet} min={SHEET.min} max={most} onChange={keepSheet} />
          <Splitter label="Width of the spine" at={sheet + spine} width={spine} min={SPINE.min} max={SPINE.max} onChange={keepSpine} />
        </section>
      )}
    </div>
  )
}
