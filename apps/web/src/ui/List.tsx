/** A list that renders only the rows in view, if it's long. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useImperativeHandle, useRef, type ReactNode, type Ref } from 'react'

export interface ListHandle {
  /** Number of rows. */
  count: number
  /** Scrolls to a row and focuses it. */
  focus: (index: number) => void
}

interface Props {
  count: number
  /** Estimated row height, in px. */
  estimate: number
  label: string
  /** Rows of a tree set their own roles. */
  role?: 'list' | 'tree'
  /** Takes the remaining height. */
  grows?: boolean
  /** Class for its max height, if not a sheet's. */
  height?: string
  keyOf?: (index: number) => string
  children: (index: number) => ReactNode
  ref?: Ref<ListHandle>
}

const MANY = 60

export function List({ count, estimate, label, role = 'list', grows = false, height, keyOf, children, ref }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const many = count > MANY
  const rows = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: () => estimate,
    overscan: 4,
    enabled: many,
    getItemKey: keyOf ?? ((i) => i),
    // So that rows render with the view, not once its height is known.
    initialRect: { width: 400, height: 600 },
    useFlushSync: false,
  })
  useImperativeHandle(ref, () => ({
    count,
    focus: (index) => {
      const find = () => box.current?.querySelector<HTMLElement>(`[data-row="${index}"]`)
      if (many) rows.scrollToIndex(index)
      const row = find()
      if (row) row.focus()
      else requestAnimationFrame(() => find()?.focus())
    },
  }))
  const item = role === 'list' ? 'listitem' : 'presentation'
  return (
    <div
      ref={box}
      role={role}
      aria-label={label}
      aria-multiselectable={role === 'tree' || undefined}
      tabIndex={role === 'list' && (many || height !== undefined) ? 0 : undefined}
      className={`overflow-auto ${grows ? 'min-h-40 flex-1' : (height ?? (many ? 'max-h-[60vh]' : ''))}`}
    >
      {many ? (
        <div role="presentation" style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map((row) => (
            <div
              role={item}
              key={row.key}
              ref={rows.measureElement}
              data-index={row.index}
              className="absolute inset-x-0 top-0"
              style={{ transform: `translateY(${row.start}px)` }}
            >
              {children(row.index)}
            </div>
          ))}
        </div>
      ) : (
        Array.from({ length: count }, (_, i) => (
          <div role={item} key={keyOf?.(i) ?? i}>
            {children(i)}
          </div>
        ))
      )}
    </div>
  )
}
