/** A list that filters while typing: arrow keys choose, Enter takes. */
import { useId, useState, type KeyboardEvent, type ReactNode } from 'react'

export interface Choice {
  key: string
  /** Searched and shown. */
  name: string
  /** Shown after the name, and searched. */
  aside?: ReactNode
  /** The aside's searchable text. */
  also?: string
  isChosen?: boolean
}

interface Props<C extends Choice> {
  choices: readonly C[]
  /** Choices made from the query itself. */
  own?: (query: string) => C[]
  onTake: (choice: C) => void
  label: string
  /** Name of the list. */
  list: string
  /** Shown without matches. */
  none: ReactNode
  placeholder?: string
}

/** Max rows. */
const MOST = 100

export function Finder<C extends Choice>({ choices, own, onTake, label, list, none, placeholder }: Props<C>) {
  const [query, setQuery] = useState('')
  const chosen = choices.findIndex((c) => c.isChosen)
  const [active, setActive] = useState(Math.max(0, chosen))
  const id = useId()
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean)
  const found = choices.filter((c) => wanted.every((w) => `${c.name} ${c.also ?? ''}`.toLowerCase().includes(w)))
  const all = [...found, ...(own?.(query.trim()) ?? [])]
  // The chosen row is in view at first.
  const first = query === '' ? Math.max(0, Math.min(chosen - MOST / 2, all.length - MOST)) : 0
  const shown = all.slice(first, first + MOST)
  const at = Math.max(0, Math.min(active - first, shown.length - 1))
  const left = all.length - shown.length
  const onKey = (event: KeyboardEvent) => {
    const steps: Record<string, number> = { ArrowDown: at + 1, ArrowUp: at - 1, PageDown: at + 10, PageUp: at - 10 }
    if (event.key in steps) setActive(first + Math.max(0, Math.min(steps[event.key]!, shown.length - 1)))
    else if (event.key === 'Enter' && shown[at]) onTake(shown[at])
    else if (event.key !== 'Enter') return
    event.preventDefault()
  }
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls={id}
        aria-activedescendant={shown.length ? `${id}-${at}` : undefined}
        aria-label={label}
        placeholder={placeholder}
        value={query}
        onChange={(e) => {
          setQuery(e.target.value)
          setActive(e.target.value === '' ? Math.max(0, chosen) : 0)
        }}
        onKeyDown={onKey}
        className="mb-2 min-h-8 w-full rounded-sm border border-hair bg-paper px-2"
      />
      <ul id={id} role="listbox" aria-label={list} className="max-h-[46vh] overflow-auto">
        {shown.map((choice, i) => (
          <li
            key={choice.key}
            id={`${id}-${i}`}
            role="option"
            aria-selected={i === at}
            ref={i === at ? (el) => el?.scrollIntoView({ block: 'nearest' }) : undefined}
            onPointerMove={() => setActive(first + i)}
            onClick={() => onTake(choice)}
            className={`flex min-h-7 cursor-pointer items-center justify-between gap-3 px-2 ${i === at ? 'bg-wash' : ''} ${choice.isChosen ? 'font-semibold' : ''}`}
          >
            <span className="min-w-0 py-0.5 break-words">{choice.name}</span>
            {choice.aside}
          </li>
        ))}
      </ul>
      {left > 0 && <p className="px-2 pt-1 text-xs text-faint">{left} more; type a part of the name.</p>}
      {shown.length === 0 && <div className="py-2 text-faint">{none}</div>}
    </>
  )
}
