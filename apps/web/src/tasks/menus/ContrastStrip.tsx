/** Contrast over the trip: what a menu's text is read on from top to end, in one state, on the screen in view. */
import { contrastTrip, READABLE, type ContrastStretch, type ItemState, type Menu } from '@waybell/core'
import { useCallback, useEffect, useMemo } from 'react'
import { Button, px } from '../../ui/index.tsx'
import { Chart, type Colours } from '../../ui/Chart.tsx'
import { TableRows } from '../../ui/TableRows.tsx'
import { useView, useWork } from '../../work/context.ts'
import { Signal, useSignal } from '../../work/signal.ts'
import type { LayerProps } from '../task.ts'

/** The contrast drawn on the spine. */
const drawn = new Signal<ContrastStretch[]>([])

/** From the top down, without nested stretches. */
function inOrder([page, ...over]: readonly ContrastStretch[]): ContrastStretch[] {
  if (!page) return []
  const edges = [...new Set([page.top, page.bottom, ...over.flatMap((s) => [s.top, s.bottom])])]
    .filter((y) => y >= page.top && y <= page.bottom)
    .sort((a, b) => a - b)
  const out: ContrastStretch[] = []
  for (const [i, top] of edges.slice(0, -1).entries()) {
    const bottom = edges[i + 1]!
    // Nested stretches lie on top.
    const on = over.findLast((s) => s.top <= top && s.bottom >= bottom) ?? page
    const last = out.at(-1)
    if (last && last.over === on.over && last.ratio === on.ratio) last.bottom = bottom
    else out.push({ ...on, top, bottom })
  }
  return out
}

export function ContrastStrip({ menu, state, named }: { menu: Menu; state: ItemState; named: string }) {
  const { page } = useWork()
  const { survey, screen, live } = useView()
  const stretches = useMemo(() => (survey ? inOrder(contrastTrip(menu, state, page, survey)) : []), [menu, state, page, survey])
  useEffect(() => {
    drawn.set(stretches)
    return () => drawn.set([])
  }, [stretches])
  const option = useCallback(
    (colour: Colours) => ({
      animation: false,
      grid: { left: 34, right: 26, top: 10, bottom: 34 },
      textStyle: { fontFamily: 'inherit', color: colour('ink') },
      xAxis: {
        type: 'value',
        min: 0,
        max: stretches.at(-1)?.bottom ?? 1,
        name: 'px from the page’s top',
        nameLocation: 'middle',
        nameGap: 20,
        axisLabel: { color: colour('faint'), fontSize: 12, hideOverlap: true },
        axisLine: { lineStyle: { color: colour('hair') } },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'log',
        min: 1,
        max: 21,
        axisLabel: { color: colour('faint'), fontSize: 12, formatter: (v: number) => (v === 1 || v === 10 ? `${v}:1` : '') },
        splitLine: { show: false },
      },
      series: [
        {
          type: 'line',
          step: 'end',
          symbol: 'none',
          lineStyle: { color: colour('teal'), width: 2 },
          areaStyle: { color: colour('teal'), opacity: 0.12 },
          data: stretches.flatMap((s) => [
            [s.top, s.ratio],
            [s.bottom, s.ratio],
          ]),
          markLine: {
            silent: true,
            symbol: 'none',
            data: [{ yAxis: READABLE }],
            lineStyle: { color: colour('brick'), type: 'dashed' },
            label: { formatter: '4.5', color: colour('brick'), fontSize: 12 },
          },
        },
      ],
    }),
    [stretches],
  )
  if (!stretches.length) return <p className="text-xs text-faint">No figure: a picture lies behind, or the text isn’t on this screen.</p>
  const worst = stretches.reduce((least, one) => (one.ratio < least.ratio ? one : least))
  // Scrolls until it's behind the menu.
  const show = ({ top }: ContrastStretch) => live.scrollTo(Math.max(0, top))
  return (
    <div className="mt-2">
      <Chart
        label={`Contrast of ${named} over the page, ${screen.name}`}
        height={120}
        option={option}
        onPress={(x) => {
          const there = stretches.find((s) => x >= s.top && x < s.bottom)
          if (there) show(there)
        }}
      />
      <p className="flex items-center gap-2 text-xs">
        <span className={worst.ratio < READABLE ? 'font-bold text-brick' : 'text-faint'}>
          {worst.ratio.toFixed(1)} minimum, over {worst.over === null ? 'the page' : `“${worst.over}”`}
        </span>
        <Button kind="quiet" className="flex-none" onClick={() => show(worst)}>
          Show it
        </Button>
      </p>
      <details className="text-xs">
        <summary className="cursor-pointer text-faint">As a table</summary>
        <table className="w-full">
          <thead>
            <tr className="text-left text-faint">
              <th className="font-normal">Over</th>
              <th className="text-right font-normal">from</th>
              <th className="text-right font-normal">ratio</th>
            </tr>
          </thead>
          <TableRows count={stretches.length} estimate={20}>
            {(i) => {
              const s = stretches[i]!
              return (
                <tr key={s.top} className="border-t border-hair">
                  <td className="max-w-40 truncate">{s.over ?? 'the page'}</td>
                  <td className="text-right tabular-nums">{px(s.top)}</td>
                  <td className={`text-right tabular-nums ${s.ratio < READABLE ? 'font-bold text-brick' : ''}`}>{s.ratio.toFixed(2)}</td>
                </tr>
              )
            }}
          </TableRows>
        </table>
      </details>
    </div>
  )
}

/** On the spine: where text is readable. */
export function ContrastLayer({ scale, inView }: LayerProps) {
  const stretches = useSignal(drawn, (now) => now)
  return stretches.map(({ top, bottom, ratio }) =>
    inView(top, bottom) ? (
      <span
        key={top}
        data-contrast={ratio.toFixed(2)}
        className="pointer-events-none absolute right-0 flex w-9 items-center justify-end overflow-hidden text-xs leading-none"
        style={{
          top: top * scale,
          height: Math.max(2, (bottom - top) * scale - 1),
          borderRight: `5px ${ratio < READABLE ? 'dotted var(--color-brick)' : 'solid var(--color-teal)'}`,
        }}
      >
        {(bottom - top) * scale >= 14 && (
          <span className={`rounded-sm bg-sheet/90 px-0.5 tabular-nums ${ratio < READABLE ? 'font-bold text-brick' : 'text-ink'}`}>
            {ratio.toFixed(1)}
          </span>
        )}
      </span>
    ) : null,
  )
}
