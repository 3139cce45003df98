/** The edge between two columns: moved by dragging or arrow keys; Home restores the default. */
import { useState, type KeyboardEvent, type PointerEvent } from 'react'

interface Props {
  label: string
  /** Its position, and the width of the column before it, in px. */
  at: number
  width: number
  min: number
  max: number
  /** Null for the default. */
  onChange: (width: number | null) => void
}

const STEP = 16

export function Splitter({ label, at, width, min, max, onChange }: Props) {
  const [drag, setDrag] = useState<{ from: number; width: number } | null>(null)
  const set = (to: number) => onChange(Math.round(Math.min(max, Math.max(min, to))))
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key]
    if (by === undefined && event.key !== 'Home') return
    event.preventDefault()
    if (by === undefined) onChange(null)
    else set(width + by)
  }
  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    setDrag({ from: event.clientX, width })
    event.currentTarget.setPointerCapture(event.pointerId)
  }
  return (
    <>
      {/* Frames would capture the pointer. */}
      {drag && <div className="fixed inset-0 z-9 cursor-col-resize" />}
      <div
        role="separator"
        tabIndex={0}
        aria-label={label}
        aria-orientation="vertical"
        aria-valuemin={min}
        aria-valuemax={max}
        aria-valuenow={Math.round(width)}
        title={label}
        onKeyDown={onKey}
        onPointerDown={onDown}
        onPointerMove={(e) => drag && set(drag.width + e.clientX - drag.from)}
        onPointerUp={() => setDrag(null)}
        onLostPointerCapture={() => setDrag(null)}
        onDoubleClick={() => onChange(null)}
        className="absolute inset-y-0 z-10 -ml-1 w-2 cursor-col-resize touch-none hover:bg-teal/30 focus-visible:bg-teal/30"
        style={{ left: at }}
      />
    </>
  )
}
