/** The press that resolves a finding; nothing without a fix. */
import type { Finding } from '@waybell/core'
import { useWork } from '../work/context.ts'

export function FixButton({ fix }: Pick<Finding, 'fix'>) {
  const { run } = useWork()
  if (!fix) return null
  return (
    <button
      type="button"
      className="min-h-6 rounded-sm border border-hair bg-sheet px-1.5 text-ink hover:border-faint"
      onClick={() => run(fix.command)}
    >
      {fix.label}
    </button>
  )
}
