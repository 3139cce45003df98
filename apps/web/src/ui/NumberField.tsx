/** A number with its unit. An invalid one stays, with the limits and a way back. */
import { useEffect, useId, useRef, useState } from 'react'
import { Back } from './index.tsx'

/** Values from arrow keys are taken after this pause, in ms. */
const REST = 250

export function NumberField({
  label,
  unit,
  value,
  min,
  max,
  why,
  onCommit,
}: {
  label: string
  unit: string
  value: number
  min: number
  max: number
  /** What the limits are for. */
  why?: string
  onCommit: (value: number) => void
}) {
  const [draft, setDraft] = useState(String(value))
  const id = useId()
  useEffect(() => setDraft(String(value)), [value])
  const number = Number(draft)
  const fits = draft.trim() !== '' && Number.isFinite(number) && number >= min && number <= max
  const commit = () => {
    clearTimeout(stepping.current)
    if (fits && number !== value) onCommit(number)
  }
  const stepping = useRef<ReturnType<typeof setTimeout>>(undefined)
  const latest = useRef(commit)
  latest.current = commit
  useEffect(() => () => clearTimeout(stepping.current), [])
  return (
    <span className="block">
      <label htmlFor={id} className="mr-2">
        {label}
      </label>
      <input
        id={id}
        type="number"
        value={draft}
        min={min}
        max={max}
        aria-invalid={!fits}
        onChange={(e) => {
          setDraft(e.target.value)
          clearTimeout(stepping.current)
          // Arrow keys and wheel aren't text input.
          if (!(e.nativeEvent as Partial<InputEvent>).inputType) stepping.current = setTimeout(() => latest.current(), REST)
        }}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit()
          if (e.key === 'Escape') setDraft(String(value))
        }}
        className={`min-h-7 w-20 rounded-sm border bg-sheet px-1.5 text-right tabular-nums ${fits ? 'border-hair' : 'border-brick'}`}
      />{' '}
      {unit}
      {!fits && (
        <span role="alert" className="block text-xs text-brick">
          A number from {min} to {max}
          {why && `: ${why}`}. <Back to={`${value} ${unit}`} onPress={() => setDraft(String(value))} />
        </span>
      )}
    </span>
  )
}
