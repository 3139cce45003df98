/** A list of which only the rows in view are made, once there are many. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useImperativeHandle, useRef, type ReactNode, type Ref } from 'react'

export interface ListHandle {
  /** How many rows there are now. */
  count: number
  /** Brings a row into view and puts the focus on it. */
  focus: (index: number) => void
}

interface Props {
  count: number
  /** Likely height of a row, in px. */
  estimate: number
  label: string
  /** A tree's rows say what they are themselves. */
  role?: 'list' | 'tree'
  /** Takes the height that is left. */
  grows?: boolean
  /** Class for its greatest height, where it is not that of a sheet. */
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
    // So that its rows are made with the rest of the view, and not in one go when its height is known.
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
