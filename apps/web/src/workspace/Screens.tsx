/** The site's screens: names, sizes and order. */
import { faultOfScreen, freshKey, defaultScreens, plainScreens, sizeText, type Screen } from '@waybell/core'
import { ArrowDown, ArrowUp, X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { Button, Field, type Problem } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { useView, useWork } from '../work/context.ts'

const sizeOf = ({ width, height }: Screen): string => sizeText({ width, height })

/** Null if invalid. */
function sizeIn(typed: string): Pick<Screen, 'width' | 'height'> | null {
  const [, width, height] = /^\s*(\d+)\s*(?:px)?\s*[x×*,/ ]\s*(\d+)\s*(?:px)?\s*$/i.exec(typed) ?? []
  return width === undefined ? null : { width: Number(width), height: Number(height) }
}

/** In percent; null if invalid. */
function percentIn(typed: string): number | null {
  const [, percent] = /^\s*(\d+)\s*%?\s*$/.exec(typed) ?? []
  return percent === undefined ? null : Number(percent)
}

/** The default isn't stored. */
function withText(screen: Screen, percent: number): Screen {
  const next = { ...screen, text: percent }
  if (percent === 100) delete (next as Screen).text
  return next
}

export function ScreensDialog() {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button kind="quiet" title="Edit screens">
          Screens
        </Button>
      </Dialog.Trigger>
      <Sheet
        title="Screens"
        description="The viewports to design for. Other viewports follow the closest one. Screens with larger text follow the one of their size."
      >
        <Screens />
        <Dialog.Close asChild>
          <Button kind="main" className="mt-4">
            Done
          </Button>
        </Dialog.Close>
      </Sheet>
    </Dialog.Root>
  )
}

function Screens() {
  const { site, run } = useWork()
  const { screen: shown, showScreen } = useView()
  const { screens } = site
  const add = (screen: Screen) => run({ type: 'screen/add', screen, index: screens.length }) && showScreen(screen.key)
  const keyFor = (key: string) => (screens.some((s) => s.key === key) ? freshKey(key, keysIn(site)) : key)
  return (
    <>
      <table className="mb-3 w-full text-sm">
        <thead>
          <tr className="border-b border-hair text-left text-xs text-faint">
            {['Name', 'Width×height, px', 'Touch', 'Text', 'Order', 'Remove'].map((name) => (
              <th key={name} scope="col" className="py-1 pr-3 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {screens.map((screen, i) => (
            <Row key={screen.key} screen={screen} index={i} />
          ))}
        </tbody>
      </table>
      <div role="group" aria-label="Add a screen" className="flex flex-wrap gap-2">
        {defaultScreens
          .filter((s) => !faultOfScreen(s, screens))
          .map((s) => (
            <Button key={s.key} onClick={() => add({ ...s, key: keyFor(s.key) })}>
              Add {s.name} {sizeOf(s)}
            </Button>
          ))}
        <Button onClick={() => add(another(screens, freshKey('screen', keysIn(site))))}>Add another</Button>
        {!faultOfScreen(larger(shown), screens) && (
          <Button onClick={() => add({ ...larger(shown), key: freshKey('screen', keysIn(site)) })}>Add {larger(shown).name}</Button>
        )}
      </div>
    </>
  )
}

/** Every key a screen ever had here. New screens get others, so that they don't inherit settings. */
const keysIn = ({ screens, pages }: ReturnType<typeof useWork>['site']): string[] => [
  ...screens.map((s) => s.key),
  ...pages.flatMap((p) => p.sections.flatMap((s) => s.adjust?.off ?? [])),
  ...pages.flatMap((p) => p.menus.flatMap((m) => [...(m.shown?.off ?? []), ...m.items.flatMap((i) => i.off ?? [])])),
]

/** The same with the large text that many visitors need. */
const larger = (screen: Screen): Screen => ({ ...withText(screen, 150), name: `${screen.name}, large text` })

/** A new screen, different from the others. */
function another(screens: readonly Screen[], key: string): Screen {
  for (let n = screens.length + 1; ; n++) {
    const screen = { key, name: `Screen ${n}`, width: 1024 + 10 * (n - screens.length - 1), height: 768, touch: false }
    if (!faultOfScreen(screen, screens)) return screen
  }
}

function Row({ screen, index }: { screen: Screen; index: number }) {
  const { site, run } = useWork()
  const { screens } = site
  const { key, name, touch, text = 100 } = screen
  const others = screens.filter((s) => s !== screen)
  const change = (over: Partial<Screen>) => run({ type: 'screen/change', screen: { ...screen, ...over } })
  // The last screen with default text stays: larger text follows one of those.
  const isNeeded = !plainScreens(others).length
  const refused = (over: Partial<Screen> | null): Problem | null => {
    const message = over ? faultOfScreen({ ...screen, ...over }, others) : 'Enter width × height, such as 390×844.'
    return message === null ? null : { message, severity: 'error' }
  }
  const refusedText = (typed: string): Problem | null => {
    const percent = percentIn(typed)
    const fault = percent === null ? 'Enter a percentage, such as 150%.' : faultOfScreen(withText(screen, percent), others)
    const message = percent !== 100 && isNeeded ? 'This is the last screen with normal text, which large text needs.' : fault
    return message === null ? null : { message, severity: 'error' }
  }
  const move = (to: number) => run({ type: 'screen/move', screen: key, index: to })
  return (
    <tr className="border-b border-hair align-top" data-screen-row={key}>
      <td className="py-1 pr-3">
        <Field
          value={name}
          label={`Name of screen ${index + 1}`}
          check={(to) => refused({ name: to })}
          onCommit={(to) => change({ name: to })}
        />
      </td>
      <td className="w-44 py-1 pr-3">
        <Field
          value={sizeOf(screen)}
          label={`Size of ${name}`}
          check={(typed) => refused(sizeIn(typed))}
          onCommit={(typed) => change(sizeIn(typed)!)}
        />
      </td>
      <td className="py-1 pr-3">
        <input
          type="checkbox"
          aria-label={`${name} is touched`}
          checked={touch}
          onChange={(e) => change({ touch: e.target.checked })}
          className="m-1.5"
        />
      </td>
      <td className="py-1 pr-3">
        <Field
          value={`${text}%`}
          label={`Text of ${name}`}
          check={(typed) => refusedText(typed)}
          onCommit={(typed) => run({ type: 'screen/change', screen: withText(screen, percentIn(typed)!) })}
        />
      </td>
      <td className="py-1 pr-3 whitespace-nowrap">
        <Button kind="quiet" aria-label={`Move ${name} up`} disabled={index === 0} onClick={() => move(index - 1)}>
          <ArrowUp size={14} aria-hidden />
        </Button>
        <Button kind="quiet" aria-label={`Move ${name} down`} disabled={index === screens.length - 1} onClick={() => move(index + 1)}>
          <ArrowDown size={14} aria-hidden />
        </Button>
      </td>
      <td className="py-1">
        <Button
          kind="quiet"
          aria-label={`Remove ${name}`}
          title={isNeeded ? 'A site needs at least one screen with normal text' : undefined}
          disabled={isNeeded}
          onClick={() => run({ type: 'screen/drop', screen: key })}
        >
          <X size={14} aria-hidden />
        </Button>
      </td>
    </tr>
  )
}
