/** Picking an element on the live page: its way down the tree, and what it can be made. */
import { useEffect, useRef, type KeyboardEvent } from 'react'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'
import { addPoint, addSection, candidateOf } from './steps.ts'

const steps = { ArrowUp: 'parent', ArrowDown: 'child', ArrowLeft: 'previous', ArrowRight: 'next' } as const

export function PickButton() {
  const { live, picking } = useWork()
  return (
    <Button aria-pressed={picking !== null} onClick={() => live.pick(picking === null)}>
      {picking === null ? 'Pick on the page' : 'Stop picking'}
    </Button>
  )
}

export function PickPanel() {
  const work = useWork()
  const { page, live, picking } = work
  const panel = useRef<HTMLDivElement>(null)
  const isOn = picking !== null
  useEffect(() => {
    if (isOn) panel.current?.focus()
  }, [isOn])
  if (!picking) return null
  const { way, isTaken } = picking
  const el = way.at(-1)
  const section = el && page.sections.find((s) => s.at === el.at && !s.point)
  const done = (act: () => void) => () => {
    act()
    live.pick(false)
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return
    const step = steps[event.key as keyof typeof steps]
    if (step) live.pickStep(step)
    else if (event.key === 'Escape') live.pick(false)
    else if (event.key === 'Enter' && el && !section) done(() => addSection(work, candidateOf(work, el)))()
    else return
    event.preventDefault()
  }
  return (
    <div
      ref={panel}
      role="group"
      aria-label="Picked element"
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
          <p className="mb-2 truncate">“{el.title}”</p>
          <div className="flex flex-wrap gap-2">
            <Button
              kind={isTaken ? 'main' : 'plain'}
              disabled={section !== undefined}
              onClick={done(() => addSection(work, candidateOf(work, el)))}
            >
              {section ? 'A section already' : 'Make it a section'}
            </Button>
            <Button onClick={done(() => addPoint(work, { at: el.at, title: el.title, depth: 0 }))}>Put a point before it</Button>
          </div>
        </>
      ) : (
        <p>
          Point at a part of the page and press. The arrow keys go up, down and sideways in its tree, Enter makes a section, Escape ends it.
        </p>
      )}
    </div>
  )
}
