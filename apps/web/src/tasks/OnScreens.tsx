/** Screens that something applies to. */
import { plainScreens } from '@waybell/core'
import { useWork } from '../work/context.ts'

export function OnScreens({
  of,
  label = 'Screens',
  off = [],
  onChange,
}: {
  of: string
  label?: string
  off: string[] | undefined
  onChange: (off: string[] | undefined) => void
}) {
  const { site } = useWork()
  const screens = plainScreens(site.screens)
  const toggle = (key: string, isOn: boolean) => {
    // Removed screens are dropped.
    const next = screens.map((s) => s.key).filter((k) => (k === key ? !isOn : off.includes(k)))
    onChange(next.length ? next : undefined)
  }
  return (
    <>
      <span className="text-faint">{label}</span>
      <span role="group" aria-label={`Screens of ${of}`} className="flex flex-wrap gap-x-3">
        {screens.map(({ key, name }) => (
          <label key={key} className="flex min-h-7 items-center gap-1">
            <input type="checkbox" checked={!off.includes(key)} onChange={(e) => toggle(key, e.target.checked)} />
            {name}
          </label>
        ))}
      </span>
    </>
  )
}
