/** Threads: from items and links to their sections on the spine. A broken item's thread hangs loose. */
import { useLayoutEffect, useRef, useState } from 'react'
import { useView, useWork } from '../../work/context.ts'
import { useSignal } from '../../work/signal.ts'
import { drawn } from './ThreadEnd.tsx'

interface Thread {
  key: string
  path: string
  loose: boolean
  lit: boolean
}

const curve = (x: number, y: number, toX: number, toY: number) => `M${x} ${y}C${x + 22} ${y} ${toX - 22} ${toY} ${toX} ${toY}`

/** From this many on, they share the gutter; the hovered one stands out. */
const MANY = 12
const BEND = 6
function bundled(x: number, y: number, toX: number, toY: number): string {
  const down = Math.sign(toY - y)
  if (Math.abs(toY - y) < 2 * BEND) return curve(x, y, toX, toY)
  const gutter = x + (toX - x) / 2
  return `M${x} ${y}H${gutter - BEND}q${BEND} 0 ${BEND} ${down * BEND}V${toY - down * BEND}q0 ${down * BEND} ${BEND} ${down * BEND}H${toX}`
}

export function Threads() {
  const { page } = useWork()
  const { survey, pointed: signal } = useView()
  const pointed = useSignal(signal, (now) => now)
  const drag = useSignal(drawn, (now) => now)
  const svg = useRef<SVGSVGElement>(null)
  const [threads, setThreads] = useState<readonly Thread[]>([])
  useLayoutEffect(() => {
    const host = svg.current!.parentElement!
    const draw = () => {
      const origin = host.getBoundingClientRect()
      const sheet = host.querySelector('[data-testid="sheet"]')!.getBoundingClientRect()
      const next: Thread[] = []
      const rows = [...host.querySelectorAll<HTMLElement>('[data-item], [data-link]')]
      const draws = rows.filter((row) => row.dataset.section).length > MANY ? bundled : curve
      for (const row of rows) {
        const from = row.getBoundingClientRect()
        const y = from.top + from.height / 2 - origin.top
        if (from.bottom < sheet.top || from.top > sheet.bottom) continue
        const section = row.dataset.section
        const key = row.dataset.item ?? `link ${row.dataset.link}`
        const handle = row.querySelector('[data-thread-end]')?.getBoundingClientRect()
        const x = (handle ? handle.left + handle.width / 2 : sheet.right - 10) - origin.left
        if (drag?.key === key) {
          next.push({ key, path: curve(x, y, drag.x - origin.left, drag.y - origin.top), loose: false, lit: true })
          continue
        }
        const band = section
          ? host.querySelector<HTMLElement>(`[data-band="${CSS.escape(section)}"], [data-point="${CSS.escape(section)}"]`)
          : null
        if (band) {
          const to = band.getBoundingClientRect()
          const end = [to.left - origin.left, to.top - origin.top + Math.min(to.height / 2, 12)]
          next.push({
            key,
            path: draws(x, y, end[0]!, end[1]!),
            loose: false,
            lit: section === pointed,
          })
        } else if (row.dataset.loose) next.push({ key, path: `M${x} ${y}q10 2 12 16`, loose: true, lit: false })
      }
      // The hovered one on top.
      next.sort((a, b) => Number(a.lit) - Number(b.lit))
      setThreads((old) => (JSON.stringify(old) === JSON.stringify(next) ? old : next))
    }
    draw()
    const observer = new ResizeObserver(draw)
    for (const el of host.querySelectorAll('[data-testid="sheet"], [data-testid="spine"]')) observer.observe(el)
    const sheet = host.querySelector('[data-testid="sheet"]')!
    // The sheet or a list may scroll.
    sheet.addEventListener('scroll', draw, { passive: true, capture: true })
    return () => {
      observer.disconnect()
      sheet.removeEventListener('scroll', draw, { capture: true })
    }
  }, [page, survey, pointed, drag])
  const isMany = threads.length > MANY
  return (
    <svg ref={svg} aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
      {threads.map((t) => (
        <path
          key={t.key}
          d={t.path}
          fill="none"
          stroke={t.loose ? 'var(--color-brick)' : 'var(--color-teal)'}
          strokeWidth={t.lit ? 2.5 : 1.25}
          strokeOpacity={isMany && !t.lit && !t.loose ? 0.5 : 1}
          strokeDasharray={t.loose ? '3 3' : undefined}
        />
      ))}
    </svg>
  )
}
