/** A chart in our colours, as SVG, which can be saved. The library loads with the first one. */
import type { EChartsCoreOption } from 'echarts/core'
import { Download } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Button } from './index.tsx'
import { save } from './save.ts'

/** Current colours by their names in the style. */
export type Colours = (name: 'ink' | 'faint' | 'hair' | 'teal' | 'brass' | 'brick' | 'sheet') => string

const colours: Colours = (name) => getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim()

export function Chart({
  label,
  height,
  option,
  onPress,
}: {
  /** Its content in words; the table has the details. */
  label: string
  /** In px. */
  height: number
  option: (colours: Colours) => EChartsCoreOption
  /** Called with the horizontal value. */
  onPress?: (x: number) => void
}) {
  const host = useRef<HTMLDivElement>(null)
  const chart = useRef<{ setOption: (option: EChartsCoreOption, notMerge: boolean) => void; svg: () => string } | null>(null)
  const latest = useRef({ option, onPress })
  latest.current = { option, onPress }
  useEffect(() => {
    let isGone = false
    let end = () => {}
    void import('./echarts.ts').then(({ init }) => {
      if (isGone) return
      const drawn = init(host.current, null, { renderer: 'svg' })
      drawn.setOption(latest.current.option(colours), true)
      drawn.getZr().on('click', ({ offsetX, offsetY }) => {
        const [x] = drawn.convertFromPixel('grid', [offsetX, offsetY]) as number[]
        if (x !== undefined) latest.current.onPress?.(x)
      })
      // The observer first reports the size already drawn.
      const observer = new ResizeObserver(([entry]) => {
        if (Math.round(entry!.contentRect.width) !== drawn.getWidth()) drawn.resize()
      })
      observer.observe(host.current!)
      chart.current = { setOption: (next, notMerge) => drawn.setOption(next, notMerge), svg: () => drawn.renderToSVGString() }
      end = () => {
        observer.disconnect()
        drawn.dispose()
        chart.current = null
      }
    })
    return () => {
      isGone = true
      end()
    }
  }, [])
  useEffect(() => chart.current?.setOption(option(colours), true), [option])
  const saveSvg = () => {
    const svg = chart.current?.svg()
    if (svg) save(new Blob([svg], { type: 'image/svg+xml' }), `${label}.svg`)
  }
  return (
    <div className="relative">
      <div ref={host} role="img" aria-label={label} style={{ height }} />
      <span className="absolute top-0 right-0">
        <Button kind="quiet" aria-label={`Save the chart “${label}” as SVG`} title="Save as SVG" onClick={saveSvg}>
          <Download size={12} aria-hidden />
        </Button>
      </span>
    </div>
  )
}
