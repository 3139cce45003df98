/** Above the live page: the screen in view, the others beside it, and the page's own scripts. */
import { sizeText } from '@waybell/core'
import { RadioGroup } from 'radix-ui'
import { useView, useWork } from '../work/context.ts'
import { ScreensDialog } from './Screens.tsx'

interface Props {
  /** Shows the other screens, synced with the one in view. */
  isStrip: boolean
  onStrip: (isStrip: boolean) => void
  onScripts: (on: boolean) => void
}

export function ScreenBar({ isStrip, onStrip, onScripts }: Props) {
  const { site } = useWork()
  const { screen, showScreen } = useView()
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 pb-2">
      <RadioGroup.Root
        value={screen.key}
        onValueChange={showScreen}
        aria-label="Screen"
        orientation="horizontal"
        className="flex flex-wrap gap-1"
      >
        {site.screens.map((s) => (
          <RadioGroup.Item
            key={s.key}
            value={s.key}
            aria-label={`${s.name} ${sizeText(s)}`}
            title={sizeText(s)}
            // Arrow keys move the focus, and with it the choice.
            onFocus={() => showScreen(s.key)}
            className="min-h-7 rounded-sm border border-hair px-2.5 text-sm data-[state=checked]:border-teal data-[state=checked]:bg-wash data-[state=checked]:font-semibold"
          >
            {s.name}
            {/* With many screens only one size fits. */}
            {(s === screen || site.screens.length < 4) && ` ${sizeText(s)}`}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <ScreensDialog />
      <div className="ml-auto flex gap-3 text-sm whitespace-nowrap">
        {site.screens.length > 1 && (
          <label className="flex items-center gap-1.5" title="Shows all screens at the same place">
            <input type="checkbox" checked={isStrip} onChange={(e) => onStrip(e.target.checked)} /> Sync screens
          </label>
        )}
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={site.scripts !== false} onChange={(e) => onScripts(e.target.checked)} /> Page’s own scripts
        </label>
      </div>
    </div>
  )
}
