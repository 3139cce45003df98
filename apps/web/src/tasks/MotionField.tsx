/** A motion: instant, the browser's, or timed with an easing. */
import { EASINGS, motionText, TIMES, type Easing, type Motion, type Timed } from '@waybell/core'
import { useId } from 'react'
import { NumberField } from '../ui/NumberField.tsx'

const easingNames: Record<Easing, string> = {
  'ease-out': 'Slows down (ease-out)',
  'ease-in-out': 'Speeds up, slows down (ease-in-out)',
  'ease-in': 'Speeds up (ease-in)',
  linear: 'Even (linear)',
}

/** Initial timed motion. */
export const USUAL: Timed = { easing: 'ease-in-out', ms: 600 }

export const motionSaid = (motion: Motion): string =>
  motion === 'jump' ? 'immediate' : motion === 'smooth' ? 'smooth' : `timed, ${motion.ms}${motion.most ? ` to ${motion.most}` : ''} ms`

interface MotionFieldProps {
  /** Whose links: `item Tickets`. */
  of: string
  value: Motion | undefined
  /** The default's name. */
  otherwise: string
  onChange: (motion: Motion | undefined) => void
}

/** Motion of a menu or link; none for the default. */
export function MotionField({ of, value, otherwise, onChange }: MotionFieldProps) {
  return (
    <>
      <select
        aria-label={`Motion of ${of}`}
        value={typeof value === 'object' ? 'timed' : (value ?? '')}
        onChange={({ target }) => onChange(target.value === 'timed' ? USUAL : (target.value as 'jump' | 'smooth' | '') || undefined)}
        className="min-h-7 min-w-0 rounded-sm border border-hair bg-sheet px-1 text-sm"
      >
        <option value="">{otherwise}</option>
        <option value="jump">Immediate</option>
        <option value="smooth">Smooth, in the browser’s time</option>
        <option value="timed">Timed</option>
      </select>
      {typeof value === 'object' && <TimedFields of={of} value={value} onChange={onChange} />}
    </>
  )
}

export function TimedFields({ of, value, onChange }: { of: string; value: Timed; onChange: (timed: Timed) => void }) {
  const { easing, ms, most } = value
  const id = useId()
  const set = (next: Timed) => {
    // The longest duration is at least the shortest.
    if (next.most !== undefined && next.most < next.ms) next.most = next.ms
    onChange(next)
  }
  return (
    <div role="group" aria-label={`Timing of ${of}`} className="my-1 flex items-start gap-3">
      <div className="min-w-0 flex-1">
        <NumberField
          label={most === undefined ? 'Takes' : 'Takes at least'}
          unit="ms"
          value={ms}
          min={TIMES.least}
          max={TIMES.most}
          onCommit={(to) => set({ ...value, ms: Math.round(to) })}
        />
        <label className="flex min-h-7 items-center gap-1.5">
          <input
            type="checkbox"
            checked={most !== undefined}
            onChange={(e) => onChange(e.target.checked ? { easing, ms, most: Math.min(TIMES.most, ms * 2) } : { easing, ms })}
          />
          Longer for a longer way
        </label>
        {most !== undefined && (
          <NumberField
            label="At most"
            unit="ms, from 5,000 px on"
            value={most}
            min={ms}
            max={TIMES.most}
            onCommit={(to) => set({ ...value, most: Math.round(to) })}
          />
        )}
        <label htmlFor={id} className="mr-2">
          Easing
        </label>
        <select
          id={id}
          value={easing}
          onChange={(e) => onChange({ ...value, easing: e.target.value as Easing })}
          className="min-h-7 max-w-full rounded-sm border border-hair bg-sheet px-1 text-sm"
        >
          {Object.entries(easingNames).map(([name, said]) => (
            <option key={name} value={name}>
              {said}
            </option>
          ))}
        </select>
      </div>
      <Curve easing={easing} />
    </div>
  )
}

/** Time to the right, distance upwards. */
function Curve({ easing }: { easing: Easing }) {
  const size = 72
  const points = Array.from(
    { length: 25 },
    (_, i) => `${((i / 24) * size).toFixed(1)},${((1 - EASINGS[easing](i / 24)) * size).toFixed(1)}`,
  )
  return (
    <svg
      width={size + 8}
      height={size + 22}
      viewBox={`-4 -4 ${size + 8} ${size + 22}`}
      role="img"
      aria-label={`The curve of ${easing}: how much of the way is done at which part of the time`}
      className="flex-none"
    >
      <path d={`M0 0V${size}H${size}`} fill="none" className="stroke-hair" />
      <polyline points={points.join(' ')} fill="none" strokeWidth={2} className="stroke-teal" />
      <text x={size} y={size + 13} textAnchor="end" className="fill-faint text-xs">
        time
      </text>
    </svg>
  )
}

/** True for equal motions. */
export const isSameMotion = (a: Motion, b: Motion): boolean => motionText(a) === motionText(b)
