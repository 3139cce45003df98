/** Travel: motion, header, breathing space, and where every link arrives on every screen. */
import { breathingOn, isOwnTravel, leastBreathing } from '@waybell/core'
import { Fold } from '../../ui/Fold.tsx'
import { Button, Heading } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useWork } from '../../work/context.ts'
import { ArrivalTable } from './ArrivalTable.tsx'
import { HeaderSettings } from './Header.tsx'
import { MotionSettings } from './Motion.tsx'
import { RoomAtEnd } from './RoomAtEnd.tsx'

const WHY = 'with less, a heading would go under the header'

/** One for all screens, and others for some: what is written goes by the widths around a screen. */
function Breathing() {
  const { page, site, surveys, run } = useWork()
  const { breathing, breathes = [] } = page.travel
  const set = (next: { breathing?: number; breathes?: typeof breathes }) => {
    const said = { breathing, breathes, ...next }
    // What is as on all screens needs no word of its own; nor does a screen that the site no longer has.
    const others = said.breathes.filter((b) => b.px !== said.breathing && site.screens.some((s) => s.key === b.screen))
    run({ type: 'travel/breathing', page: page.key, breathing: said.breathing, ...(others.length && { breathes: others }) })
  }
  const least = (of: (screen: string) => boolean) =>
    leastBreathing(
      page,
      Object.values(surveys).filter((s) => of(s.screen)),
    )
  return (
    <>
      <NumberField
        label="Breathing space between header and section"
        unit="px"
        value={breathing}
        min={least((key) => !breathes.some((b) => b.screen === key))}
        max={400}
        why={WHY}
        onCommit={(next) => set({ breathing: next })}
      />
      {site.screens.length > 1 && (
        <Fold title="Other breathing space on some screens" isSet={breathes.length > 0}>
          <div className="pl-4">
            {site.screens.map(({ key, name }) => (
              <NumberField
                key={key}
                label={`On ${name}`}
                unit="px"
                value={breathingOn(page, key)}
                min={least((k) => k === key)}
                max={400}
                why={WHY}
                onCommit={(px) => set({ breathes: [...breathes.filter((b) => b.screen !== key), { screen: key, px }] })}
              />
            ))}
          </div>
        </Fold>
      )}
    </>
  )
}

export function TravelTask() {
  const { page, run } = useWork()
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  return (
    <>
      <MotionSettings />
      <Heading>Offset</Heading>
      {isOwnTravel(page) ? (
        <div className="border-l-4 border-teal bg-wash p-2 text-sm">
          <p className="mb-1.5">Links arrive by the page’s own offsets, which stay as they are.</p>
          <Button
            onClick={() =>
              run({
                type: 'travel/breathing',
                page: page.key,
                breathing: page.travel.breathing,
                ...(page.travel.breathes && { breathes: page.travel.breathes }),
              })
            }
          >
            Set the offset here instead
          </Button>
        </div>
      ) : (
        <Breathing />
      )}
      <HeaderSettings />
      <RoomAtEnd />
      <ArrivalTable />
    </>
  )
}
