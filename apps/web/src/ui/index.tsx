/** Shared small components. */
import { useEffect, useId, useRef, useState, type ButtonHTMLAttributes, type ReactNode } from 'react'

type Kind = 'main' | 'plain' | 'quiet'

const kinds: Record<Kind, string> = {
  main: 'bg-teal text-paper border-teal font-semibold',
  plain: 'bg-sheet text-ink border-hair hover:border-faint',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-wash',
}

export function Button({ kind = 'plain', className = '', ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-7 items-center justify-center gap-1.5 rounded-sm border px-2.5 py-1 text-sm disabled:opacity-50 ${kinds[kind]} ${className}`}
      {...rest}
    />
  )
}

/** A problem of a value: errors are refused, warnings aren't. */
export interface Problem {
  message: string
  severity: 'error' | 'warning'
  /** A valid value, taken in one press. */
  suggestion?: string
}

/** Moves the focus from a finished field to its row, if it has one. */
export const leaveField = (field: HTMLElement): void => field.closest<HTMLElement>('[data-row]')?.focus()

/** Returns from an invalid value to the stored one. */
export function Back({ to, mono = false, onPress }: { to: string; mono?: boolean; onPress: () => void }) {
  return (
    <button
      type="button"
      // Keeps the focus in the field, so that its text isn't taken.
      onPointerDown={(e) => e.preventDefault()}
      onClick={onPress}
      className="min-h-6 rounded-sm border border-hair bg-sheet px-1.5 text-ink hover:border-faint"
    >
      Back to <span className={mono ? 'font-mono' : ''}>{to}</span>
    </button>
  )
}

/** Edited in place: Enter or leaving takes the text, Escape restores it. Invalid text stays, with the reason and a way back. */
export function Field({
  value,
  label,
  onCommit,
  check,
  mono = false,
  prefix,
  placeholder,
  className = '',
  disabled = false,
  mayBeEmpty = false,
}: {
  value: string
  label: string
  onCommit: (value: string) => void
  /** The problem of typed text. */
  check?: (value: string) => Problem | null
  mono?: boolean
  prefix?: string
  placeholder?: string
  className?: string
  disabled?: boolean
  mayBeEmpty?: boolean
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const shown = draft ?? value
  const isEmpty = !mayBeEmpty && draft !== null && draft.trim() === '' && value !== ''
  const problem: Problem | null = check?.(shown) ?? (isEmpty ? { message: 'Nothing stands here.', severity: 'error' } : null)
  const isRefused = draft !== null && draft !== value && problem?.severity === 'error'
  const hint = useId()
  const leaving = useRef(false)
  useEffect(() => setDraft(null), [value])
  const commit = () => {
    if (leaving.current || !isRefused) {
      if (!leaving.current && draft !== null && draft !== value && (mayBeEmpty || draft.trim() !== ''))
        onCommit(draft.trim() === '' ? '' : draft)
      setDraft(null)
    }
    leaving.current = false
  }
  return (
    <span className={`block min-w-0 ${className}`}>
      <span className="flex items-center" title={shown}>
        {prefix && (
          <span aria-hidden className={`pr-0.5 text-faint ${mono ? 'font-mono' : ''}`}>
            {prefix}
          </span>
        )}
        <input
          aria-label={label}
          aria-invalid={problem !== null}
          aria-describedby={problem ? hint : undefined}
          disabled={disabled}
          value={shown}
          placeholder={placeholder}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Escape') setDraft(null)
            else if (e.key === 'Enter' && !isRefused) commit()
            else return
            // Already handled; leaving must not take it again.
            leaving.current = true
            leaveField(e.currentTarget)
            leaving.current = false
          }}
          className={`min-h-6 w-full min-w-0 text-ellipsis rounded-sm border border-transparent bg-transparent px-1 hover:border-hair focus:border-teal focus:bg-sheet ${mono ? 'font-mono text-[13px]' : ''} ${problem ? 'border-brick!' : ''} disabled:text-faint`}
        />
      </span>
      {problem && (
        <span className="block pl-1 text-xs text-brick">
          <span id={hint} role={isRefused ? 'alert' : undefined}>
            {problem.message}
          </span>{' '}
          {isRefused && value !== '' && <Back to={`${prefix === '#' ? '#' : ''}${value}`} mono={mono} onPress={() => setDraft(null)} />}{' '}
          {problem.suggestion !== undefined && !disabled && (
            <button
              type="button"
              // Keeps the focus in the field, so that its text isn't taken.
              onPointerDown={(e) => e.preventDefault()}
              onClick={() => {
                leaving.current = true
                setDraft(null)
                onCommit(problem.suggestion!)
                if (document.activeElement instanceof HTMLInputElement) leaveField(document.activeElement)
                leaving.current = false
              }}
              className="min-h-6 rounded-sm border border-hair bg-sheet px-1.5 text-ink hover:border-faint"
            >
              Use {prefix}
              <span className={mono ? 'font-mono' : ''}>{problem.suggestion}</span>
            </button>
          )}
        </span>
      )}
    </span>
  )
}

export function Heading({ children, aside }: { children: ReactNode; aside?: ReactNode }) {
  return (
    <div className="mt-4 mb-1.5 flex items-baseline justify-between gap-3 border-b border-hair pb-1 first:mt-0">
      <h2 className="text-sm font-bold">{children}</h2>
      {aside}
    </div>
  )
}

/** Pale, and never the only sign: the number is beside it. */
export const tint = (index: number): string => `hsl(${(index * 67 + 20) % 360} 45% 62%)`

export const px = (n: number): string => `${Math.round(n)} px`

/** Our marks: arrivals are pennants, bells half domes, points hollow diamonds, findings notches. */
export const Pennant = () => (
  <svg aria-hidden width="10" height="12" viewBox="0 0 10 12">
    <path d="M1 0v12M1 1l8 3-8 3z" fill="var(--color-teal)" stroke="var(--color-teal)" />
  </svg>
)
export const PointMark = () => (
  <svg role="img" aria-label="point" width="10" height="10" viewBox="0 0 10 10" className="flex-none">
    <path d="M5 .8 9.2 5 5 9.2.8 5z" fill="none" stroke="var(--color-teal)" strokeWidth="1.4" />
  </svg>
)
export const Dome = () => (
  <svg aria-hidden width="12" height="8" viewBox="0 0 12 8">
    <path d="M1 7a5 6 0 0 1 10 0z" fill="var(--color-brass)" />
  </svg>
)
