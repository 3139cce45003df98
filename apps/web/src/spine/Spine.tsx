/** The whole page to scale, between the work and the live page. */
import { bellMap, coverOf, partsByAt, placeOf } from '@waybell/core'
import { useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { Dome, Pennant, px, tint } from '../ui/index.tsx'
import { useWork } from '../workspace/work.ts'
import { PointHandle } from './PointHandle.tsx'

/** Under this height in px, bands have no text. */
const TEXT_HEIGHT = 15

export function Spine({ task, scroll, onScroll }: { task: string; scroll: number; onScroll: (y: number) => void }) {
  const { page, survey, screen, arrivals, pointed, point, live } = useWork()
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(600)
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setHeight(entry!.contentRect.height))
    observer.observe(box.current!)
    return () => observer.disconnect()
  }, [])
  const scale = survey ? height / survey.pageHeight : 0
  const parts = survey ? partsByAt(survey) : new Map<number, never>()
  const bands = page.sections.flatMap((section, index) => {
    const part = placeOf(section, parts)
    if (!part?.hasBox || !survey) return []
    const following = page.sections[index + 1]
    const next = following && placeOf(following, parts)
    // A heading, or an old anchor, stands for all that follows it.
    const isMark = section.at === section.heading || part.bottom - part.top < 2
    return [{ section, index, part, bottom: section.point ? part.top : isMark ? (next?.top ?? survey.pageHeight) : part.bottom }]
  })
  const drag = useRef<{ from: number; scroll: number } | null>(null)
  const end = survey?.maxScroll ?? 0
  const move = (y: number) => onScroll(Math.min(Math.max(0, y), end))
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowDown: 40, ArrowUp: -40, PageDown: screen.height * 0.9, PageUp: -screen.height * 0.9, Home: -Infinity, End: Infinity }[event.key]
    if (step === undefined) return
    event.preventDefault()
    move(scroll + step)
  }
  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    drag.current = { from: event.clientY, scroll }
    event.currentTarget.setPointerCapture(event.pointerId)
  }
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex items-baseline justify-between px-2 pb-1 text-xs text-faint">
        <h2 className="font-bold text-ink">Spine</h2>
        <span>{survey ? px(survey.pageHeight) : ''}</span>
      </div>
      <div ref={box} className="relative mx-2 min-h-0 flex-1 overflow-hidden border border-hair bg-sheet" data-testid="spine" data-scale={scale}>
        {!survey && <p className="p-3 text-xs text-faint">The page is being measured.</p>}
        {bands.map(({ section, index, part, bottom }) => {
          if (section.point) return <PointHandle key={section.key} section={section} top={part.top} scale={scale} />
          const bandHeight = (bottom - part.top) * scale
          return (
            <div
              key={section.key}
              data-band={section.key}
              title={section.title}
              onPointerEnter={() => point(section.key)}
              onPointerLeave={() => point(null)}
              onClick={() => live.follow('#' + section.id)}
              className="absolute inset-x-0 overflow-hidden"
              style={{
                top: part.top * scale,
                height: bandHeight,
                background: part.background,
                // A shadow, so that the band's edge is the section's edge to the pixel.
                boxShadow: `inset 6px 0 ${tint(index)}, inset 0 1px rgb(128 128 128 / 0.35)${pointed === section.key ? ', inset 0 0 0 2px var(--color-teal)' : ''}`,
              }}
            >
              {bandHeight >= TEXT_HEIGHT && (
                <span className="absolute top-0.5 left-2 flex max-w-[118px] gap-1 rounded-sm bg-sheet/90 px-1 text-xs leading-[14px] text-ink">
                  <b>{index + 1}</b>
                  <span className="truncate">{task === 'sections' ? '#' + section.id : section.title}</span>
                </span>
              )}
              {part.heading && <span className="absolute right-0 h-px w-4 bg-faint" style={{ top: (part.heading.top - part.top) * scale }} />}
            </div>
          )
        })}
        {survey && (
          <div
            role="slider"
            tabIndex={0}
            aria-label="Part of the page in view"
            aria-orientation="vertical"
            aria-valuemin={0}
            aria-valuemax={Math.round(end)}
            aria-valuenow={Math.round(scroll)}
            aria-valuetext={`from ${px(scroll)}`}
            data-testid="window"
            onKeyDown={onKey}
            onPointerDown={onDown}
            onPointerMove={(e) => drag.current && move(drag.current.scroll + (e.clientY - drag.current.from) / scale)}
            onPointerUp={() => (drag.current = null)}
            className="absolute right-0 w-9 cursor-grab touch-none border-2 border-ink bg-ink/10"
            style={{ top: scroll * scale, height: Math.max(screen.height * scale, 24) }}
          >
            <span className="absolute inset-x-0 top-0 bg-ink/40" style={{ height: coverOf(page, survey).arrival * scale }} />
          </div>
        )}
        {survey && task === 'highlight'
          ? bellMap(page, survey).flatMap(({ section, start }) =>
              section === null ? [] : (
                <span key={section} data-bell={section} className="pointer-events-none absolute right-10" style={{ top: start * scale - 4 }} title={`bell at ${px(start)}`}>
                  <Dome />
                </span>
              ),
            )
          : task !== 'sections' &&
            page.sections.flatMap((section, index) => {
              const arrival = arrivals.get(section.key)
              return arrival?.moves ? (
                <span key={section.key} data-arrival={section.key} className="pointer-events-none absolute flex items-start" style={{ top: arrival.land * scale, right: 38 + (index % 2) * 13 }} title={`${section.title}: arrives at ${px(arrival.land)}`}>
                  <Pennant />
                </span>
              ) : []
            })}
      </div>
    </div>
  )
}
