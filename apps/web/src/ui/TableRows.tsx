/** A table body that renders only the rows in view, if it's long; it scrolls with the `data-scroller` around it. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react'

interface Props {
  count: number
  /** Estimated row height, in px. */
  estimate: number
  /** A `tr` with a key. */
  children: (index: number) => ReactNode
}

const MANY = 60

export function TableRows({ count, estimate, children }: Props) {
  const body = useRef<HTMLTableSectionElement>(null)
  const [margin, setMargin] = useState(0)
  const many = count > MANY
  const sheet = () => body.current?.closest<HTMLElement>('[data-scroller]') ?? null
  useLayoutEffect(() => {
    const scroller = sheet()
    if (scroller) setMargin(body.current!.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop)
  }, [count])
  const rows = useVirtualizer({
    count,
    getScrollElement: sheet,
    estimateSize: () => estimate,
    overscan: 10,
    enabled: many,
    scrollMargin: margin,
  })
  if (!many) return <tbody>{Array.from({ length: count }, (_, i) => children(i))}</tbody>
  const shown = rows.getVirtualItems()
  const before = (shown[0]?.start ?? margin) - margin
  const behind = rows.getTotalSize() - ((shown.at(-1)?.end ?? margin) - margin)
  return (
    <tbody ref={body}>
      {before > 0 && <tr aria-hidden style={{ height: before }} />}
      {shown.map((row) => children(row.index))}
      {behind > 0 && <tr aria-hidden style={{ height: behind }} />}
    </tbody>
  )
}
