/** The picked element on the live page: its ancestors, by pointer and keys, and what it can become. */
import type { PickedElement } from '@waybell/agent/types'
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react'
import { useView } from '../work/context.ts'

const steps = { ArrowUp: 'parent', ArrowDown: 'child', ArrowLeft: 'previous', ArrowRight: 'next' } as const

export function PickedPanel({
  label,
  hint,
  onEnter,
  children,
}: {
  label: string
  /** Shown before anything is picked. */
  hint: string
  /** Of the panel itself. */
  onEnter?: (el: PickedElement) => void
  children: (el: PickedElement) => ReactNode
}) {
  const { live, picking } = useView()
  const panel = useRef<HTMLDivElement>(null)
  const isOn = picking !== null
  useEffect(() => {
    if (isOn) panel.current?.focus()
  }, [isOn])
  if (!picking) return null
  const { way } = picking
  const el = way.at(-1)
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return
    const step = steps[event.key as keyof typeof steps]
    if (step) live.pickStep(step)
    else if (event.key === 'Escape') live.pick(false)
    else if (event.key === 'Enter' && el && onEnter) onEnter(el)
    else return
    event.preventDefault()
  }
  return (
    <div
      ref={panel}
      role="group"
      aria-label={label}
      tabIndex={0}
      onKeyDown={onKey}
      className="mb-2 border-l-4 border-teal bg-wash p-2 text-sm"
    >
      {el ? (
        <>
          <p className="mb-1 flex flex-wrap items-center gap-x-1">
            {way.map((e, i) => (
              <span key={e.at} className="flex items-center gap-x-1">
                {i > 0 && <span aria-hidden>›</span>}
                <button
                  type="button"
                  aria-current={i === way.length - 1 || undefined}
                  onClick={() => live.pickStep(e.at)}
                  className="min-h-6 rounded-sm px-1 font-mono text-xs hover:bg-sheet aria-[current]:bg-sheet aria-[current]:font-semibold"
                >
                  {e.tag}
                  {e.id && `#${e.id}`}
                </button>
              </span>
            ))}
          </p>
          {children(el)}
        </>
      ) : (
        <p>{hint}</p>
      )}
    </div>
  )
}
