/** The end of a row's thread: dragging it to a section on the spine sets the target. Keyboard users choose by name. */
import type { ItemTarget } from '@waybell/core'
import { useEffect, useRef } from 'react'
import { useView } from '../../work/context.ts'
import { Signal, useSignal } from '../../work/signal.ts'

/** The thread being drawn: its row, and the pointer's position. */
export const drawn = new Signal<{ key: string; x: number; y: number } | null>(null)

/** The section at a position, by band or point. */
const sectionAt = (x: number, y: number): string | null => {
  const el = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-band], [data-point]')
  return el?.dataset.band ?? el?.dataset.point ?? null
}

export function ThreadEnd({ row, isLoose, onTake }: { row: string; isLoose: boolean; onTake: (target: ItemTarget) => void }) {
  const { point } = useView()
  const isDrawn = useSignal(drawn, (now) => now?.key === row)
  const handle = useRef<HTMLSpanElement>(null)
  const end = () => {
    drawn.set(null)
    point(null)
  }
  useEffect(() => {
    if (!isDrawn) return
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return
      event.preventDefault()
      end()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  })
  return (
    <span
      ref={handle}
      aria-hidden
      data-thread-end={row}
      title="Drag to a section on the spine"
      onPointerDown={(e) => {
        if (e.button) return
        e.preventDefault()
        e.stopPropagation()
        handle.current!.setPointerCapture(e.pointerId)
        drawn.set({ key: row, x: e.clientX, y: e.clientY })
      }}
      onPointerMove={(e) => {
        if (drawn.get()?.key !== row) return
        drawn.set({ key: row, x: e.clientX, y: e.clientY })
        point(sectionAt(e.clientX, e.clientY))
      }}
      onPointerUp={(e) => {
        if (drawn.get()?.key !== row) return
        const section = sectionAt(e.clientX, e.clientY)
        end()
        if (section) onTake({ kind: 'section', section })
      }}
      onPointerCancel={end}
      className="flex h-6 w-6 flex-none cursor-grab touch-none items-center justify-center self-center"
    >
      <svg width="10" height="10" viewBox="0 0 10 10">
        <circle
          cx="5"
          cy="5"
          r="3.2"
          fill="var(--color-sheet)"
          stroke={isLoose ? 'var(--color-brick)' : 'var(--color-teal)'}
          strokeWidth="1.5"
        />
      </svg>
    </span>
  )
}
