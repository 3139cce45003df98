/** Something on the spine that is moved by dragging or keys. */
import { useState, type KeyboardEvent, type PointerEvent } from 'react'

const STEPS: Partial<Record<string, number>> = { ArrowUp: -1, ArrowDown: 1, PageUp: -50, PageDown: 50 }

/**
 * @param scale px of the spine per px of the page
 * @param move called with px of the page, down
 * @returns the current drag distance in px of the spine, null while not dragged; and event handlers
 */
export function useMoved(scale: number, move: (by: number) => void) {
  const [drag, setDrag] = useState<{ from: number; by: number } | null>(null)
  const hears = {
    onKeyDown: (event: KeyboardEvent) => {
      const step = STEPS[event.key]
      if (step === undefined) return
      event.preventDefault()
      move(event.shiftKey ? step * 10 : step)
    },
    onPointerDown: (e: PointerEvent) => {
      e.currentTarget.setPointerCapture(e.pointerId)
      setDrag({ from: e.clientY, by: 0 })
    },
    onPointerMove: (e: PointerEvent) => setDrag((d) => d && { ...d, by: e.clientY - d.from }),
    onPointerCancel: () => setDrag(null),
    onPointerUp: () => {
      if (drag) move(drag.by / scale)
      setDrag(null)
    },
  }
  return { dragged: drag && drag.by, hears }
}
