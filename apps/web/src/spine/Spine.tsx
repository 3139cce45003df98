/** The spine: the whole page to scale, between work and live page. */
import { coverOf, FAR, partsByAt, partOf, roomAtEnd, type Section, type Survey, type SurveyPart } from '@waybell/core'
import { memo, useDeferredValue, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { Explained } from '../ui/Explained.tsx'
import { px, tint } from '../ui/index.tsx'
import type { Task } from '../tasks/task.ts'
import { usePointed, useView, useWork } from '../work/context.ts'
import { useSignal } from '../work/signal.ts'
import { FoundBands } from './FoundBands.tsx'
import { PointHandle } from './PointHandle.tsx'

const titleOf = (section: Section) => section.title

/** Lower bands have no text, in px. */
const TEXT_HEIGHT = 15

/** Lower bands are merged, in px. */
const LEAST_BAND = 3
/** Min height of merged bands, to point at. */
const LEAST_GATHERING = 12
const MOST_ZOOM = 64

interface Band {
  section: Section
  index: number
  part: SurveyPart
  bottom: number
}

type Drawn = { kind: 'band'; band: Band } | { kind: 'gathering'; bands: Band[]; top: number; bottom: number }

/** Merges bands that are too low at a scale with their neighbours. */
function gather(bands: readonly Band[], scale: number): Drawn[] {
  const out: Drawn[] = []
  let run: Band[] = []
  const close = () => {
    if (run.length === 1) out.push({ kind: 'band', band: run[0]! })
    else if (run.length) out.push({ kind: 'gathering', bands: run, top: run[0]!.part.top, bottom: Math.max(...run.map((b) => b.bottom)) })
    run = []
  }
  for (const band of bands) {
    if (band.section.point || (band.bottom - band.part.top) * scale >= LEAST_BAND) {
      close()
      out.push({ kind: 'band', band })
      continue
    }
    run.push(band)
    if ((band.bottom - run[0]!.part.top) * scale >= LEAST_GATHERING) close()
  }
  close()
  return out
}

/** What is not there. */
const HATCHED =
  'repeating-linear-gradient(135deg, var(--color-sheet) 0 5px, color-mix(in srgb, var(--color-brick) 35%, var(--color-sheet)) 5px 7px)'

export function Spine({ task: { Layers = [], bandName } }: { task: Pick<Task, 'Layers' | 'bandName'> }) {
  const { page } = useWork()
  const { survey, screen, scrolls, isStopped, arrivals } = useView()
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(600)
  const [zoom, setZoom] = useState(1)
  /** Scroll position of the zoomed spine, in px. */
  const [offset, setOffset] = useState(0)
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setHeight(entry!.contentRect.height))
    observer.observe(box.current!)
    return () => observer.disconnect()
  }, [])
  // Space missing at the end is drawn below it.
  const missing = Math.round(roomAtEnd([...arrivals.values()]))
  const scale = survey ? (height * zoom) / (survey.pageHeight + missing) : 0
  const bands = useMemo((): Band[] => {
    const parts = survey ? partsByAt(survey) : new Map<number, never>()
    return page.sections.flatMap((section, index) => {
      const part = partOf(section, parts)
      if (!part?.hasBox || !survey) return []
      const following = page.sections[index + 1]
      const next = following && partOf(following, parts)
      // A heading or anchor stands for everything after it.
      const isMark = section.at === section.heading || part.bottom - part.top < 2
      return [{ section, index, part, bottom: section.point ? part.top : isMark ? (next?.top ?? survey.pageHeight) : part.bottom }]
    })
  }, [page.sections, survey])
  const gathered = useMemo(() => gather(bands, scale), [bands, scale])
  // Many bands render after the press that changes them.
  const drawn = useDeferredValue(gathered)
  const inView = (top: number, bottom: number) => zoom === 1 || (bottom * scale > offset - 200 && top * scale < offset + height + 200)
  const zoomTo = (next: number, middle: number) => {
    const clamped = Math.min(MOST_ZOOM, Math.max(1, next))
    setZoom(clamped)
    // After the canvas has its new height.
    requestAnimationFrame(() => box.current?.scrollTo({ top: (middle * clamped * height) / (survey?.pageHeight ?? 1) - height / 2 }))
  }
  const middle = () => (zoom === 1 ? (scrolls.get()[screen.key] ?? 0) + screen.height / 2 : (offset + height / 2) / scale)
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex items-center gap-1 px-2 pb-1 text-xs text-faint">
        <h2 className="flex-1 font-bold text-ink">
          <Explained by="The spine: the whole page to scale, with its sections.">Spine</Explained>
        </h2>
        {zoom > 1 && (
          <button
            type="button"
            aria-label="Draw the spine smaller"
            title="Draw the spine smaller"
            onClick={() => zoomTo(zoom / 2, middle())}
            className="min-h-6 min-w-6 rounded-sm border border-hair bg-sheet"
          >
            −
          </button>
        )}
        {bands.length > 8 && zoom < MOST_ZOOM && (
          <button
            type="button"
            aria-label="Draw the spine larger"
            title="Draw the spine larger"
            onClick={() => zoomTo(zoom * 2, middle())}
            className="min-h-6 min-w-6 rounded-sm border border-hair bg-sheet"
          >
            +
          </button>
        )}
        <span>{survey ? px(survey.pageHeight) : ''}</span>
      </div>
      <div
        ref={box}
        onScroll={(e) => setOffset(e.currentTarget.scrollTop)}
        className={`relative mx-2 min-h-0 flex-1 border border-hair bg-sheet ${zoom > 1 ? 'overflow-x-hidden overflow-y-auto' : 'overflow-hidden'}`}
        data-testid="spine"
        data-scale={scale}
      >
        {!survey && <p className="p-3 text-xs text-faint">{isStopped ? 'Page stopped, not measured.' : 'The page is being measured.'}</p>}
        {zoom > 1 && <div style={{ height: height * zoom }} />}
        {survey && !page.sections.length && <FoundBands survey={survey} scale={scale} />}
        {drawn.map((d) =>
          d.kind === 'gathering'
            ? inView(d.top, d.bottom) && (
                <Gathering
                  key={`g${d.bands[0]!.section.key}`}
                  gathering={d}
                  scale={scale}
                  onOpen={() => zoomTo(Math.ceil((zoom * height) / ((d.bottom - d.top) * scale * 2)), (d.top + d.bottom) / 2)}
                />
              )
            : inView(d.band.part.top, d.band.bottom) && (
                <BandView key={d.band.section.key} band={d.band} scale={scale} name={(bandName ?? titleOf)(d.band.section)} />
              ),
        )}
        {survey && missing > 0 && (
          <div
            data-testid="missing-room"
            title={`${px(missing)} more needed at the page’s end for the last sections to arrive`}
            className="absolute inset-x-0 border-t-2 border-dashed border-brick"
            style={{ top: survey.pageHeight * scale, height: missing * scale, background: HATCHED }}
          >
            {missing * scale > 14 && (
              <span className="absolute right-1 bottom-0 bg-sheet px-1 text-xs text-brick">{px(missing)} missing</span>
            )}
          </div>
        )}
        {survey && <Window survey={survey} scale={scale} />}
        {survey && Layers.map((Layer, i) => <Layer key={i} survey={survey} scale={scale} inView={inView} />)}
      </div>
    </div>
  )
}

const BandView = memo(function BandView({
  band: { section, index, part, bottom },
  scale,
  name,
}: {
  band: Band
  scale: number
  name: string
}) {
  const { point, live } = useView()
  const isPointed = usePointed(section.key)
  if (section.point) return <PointHandle section={section} top={part.top} scale={scale} />
  const bandHeight = (bottom - part.top) * scale
  return (
    <div
      data-band={section.key}
      title={section.title}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      onClick={() => live.follow('#' + section.id)}
      className="absolute inset-x-0 overflow-hidden"
      style={{
        top: part.top * scale,
        height: bandHeight,
        background: part.grounds[0] ?? part.background,
        // A shadow, so that the band's edge is exactly the section's.
        boxShadow: `inset 6px 0 ${tint(index)}, inset 0 1px rgb(128 128 128 / 0.35)${isPointed ? ', inset 0 0 0 2px var(--color-teal)' : ''}`,
      }}
    >
      {bandHeight >= TEXT_HEIGHT && (
        <span className="absolute top-0.5 left-2 flex max-w-[132px] gap-1 rounded-sm bg-sheet/90 px-1 text-xs leading-[14px] text-ink">
          <b>{index + 1}</b>
          <span className={`min-w-0 overflow-hidden wrap-anywhere ${bandHeight >= 3 * TEXT_HEIGHT ? 'line-clamp-3' : 'truncate'}`}>
            {name}
          </span>
        </span>
      )}
      {part.heading && <span className="absolute right-0 h-px w-4 bg-faint" style={{ top: (part.heading.top - part.top) * scale }} />}
    </div>
  )
})

/** Sections too close to tell apart: named on hover, separate when zoomed in. */
function Gathering({
  gathering: { bands, top, bottom },
  scale,
  onOpen,
}: {
  gathering: Extract<Drawn, { kind: 'gathering' }>
  scale: number
  onOpen: () => void
}) {
  const { pointed } = useView()
  const [first, last] = [bands[0]!, bands.at(-1)!]
  const isPointed = useSignal(pointed, (now) => bands.some((b) => b.section.key === now))
  return (
    <button
      type="button"
      tabIndex={-1}
      data-gathering={bands.length}
      aria-label={`Sections ${first.index + 1} to ${last.index + 1}, show larger`}
      title={`${bands.length} sections:\n${bands
        .slice(0, 25)
        .map((b) => `${b.index + 1} ${b.section.title}`)
        .join('\n')}${bands.length > 25 ? '\n…' : ''}`}
      onClick={onOpen}
      className="absolute inset-x-0 overflow-hidden text-left"
      style={{
        top: top * scale,
        height: Math.max(LEAST_BAND, (bottom - top) * scale),
        background: first.part.grounds[0] ?? first.part.background,
        boxShadow: `inset 6px 0 ${tint(first.index)}, inset 0 1px rgb(128 128 128 / 0.35)${isPointed ? ', inset 0 0 0 2px var(--color-teal)' : ''}`,
      }}
    >
      {(bottom - top) * scale >= 11 && (
        <span className="absolute top-0 left-2 rounded-sm bg-sheet/90 px-1 text-xs leading-[11px] text-ink">
          {first.index + 1}–{last.index + 1}
        </span>
      )}
    </button>
  )
}

/** The visible part of the page; dragging it scrolls the live page. */
function Window({ survey, scale }: { survey: Survey; scale: number }) {
  const { page } = useWork()
  const { screen, scrolls, live } = useView()
  const scroll = useSignal(scrolls, (now) => now[screen.key] ?? 0)
  const drag = useRef<{ from: number; scroll: number } | null>(null)
  const end = survey.maxScroll
  // The page's present end, not the measured one.
  const move = (y: number) => live.scrollTo(y >= end ? FAR : Math.max(0, y))
  const onKey = (event: KeyboardEvent) => {
    const step = {
      ArrowDown: 40,
      ArrowUp: -40,
      PageDown: screen.height * 0.9,
      PageUp: -screen.height * 0.9,
      Home: -Infinity,
      End: Infinity,
    }[event.key]
    if (step === undefined) return
    event.preventDefault()
    move(scroll + step)
  }
  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    drag.current = { from: event.clientY, scroll }
    event.currentTarget.setPointerCapture(event.pointerId)
  }
  return (
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
      style={{
        top: scroll * scale,
        height: Math.max(screen.height * scale, 24),
        // Visible on light and dark bands.
        boxShadow: '0 0 0 1.5px var(--color-sheet), inset 0 0 0 1px var(--color-sheet)',
      }}
    >
      <span className="absolute inset-x-0 top-0 bg-ink/40" style={{ height: coverOf(page, survey).arrival * scale }} />
    </div>
  )
}
