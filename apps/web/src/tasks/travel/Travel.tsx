/** Travel: where every link arrives on every screen, then the settings for that. */
import { breathingOn, isOwnTravel, leastBreathing, plainScreens, takePresses, takenLinks } from '@waybell/core'
import { useMemo } from 'react'
import { Fold } from '../../ui/Fold.tsx'
import { Group } from '../../ui/Group.tsx'
import { Button, px } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { ArrivalTable } from './ArrivalTable.tsx'
import { Estimates } from './Estimates.tsx'
import { HeaderSettings } from './Header.tsx'
import { AddressSettings, MotionSettings } from './Motion.tsx'
import { PictureSizes } from './PictureSizes.tsx'
import { EndSpace } from './EndSpace.tsx'
import { SkipLink } from './SkipLink.tsx'

const WHY = 'less would put a heading under the header'

/** One value for all screens, and exceptions; written by ranges of widths. */
function Breathing() {
  const { page, site, run } = useWork()
  const { surveys } = useMeasured()
  const screens = plainScreens(site.screens)
  const { breathing, breathes = [] } = page.travel
  const set = (next: { breathing?: number; breathes?: typeof breathes }) => {
    const said = { breathing, breathes, ...next }
    // Equal values and removed screens need no exception.
    const others = said.breathes.filter((b) => b.px !== said.breathing && screens.some((s) => s.key === b.screen))
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
      {screens.length > 1 && (
        <Fold title="Exceptions by screen" isSet={breathes.length > 0}>
          <div className="pl-4">
            {screens.map(({ key, name }) => (
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

/** What a page script does with presses, and who handles them. */
function Presses() {
  const { page, site, run } = useWork()
  const { surveys, tried } = useMeasured()
  const { links, off, isPutRight, worst } = useMemo(() => takenLinks(page, surveys, tried), [page, surveys, tried])
  const { takesPresses } = page.travel
  if (!links && !takesPresses) return null
  const set = (takes?: true) => run({ type: 'travel/presses', page: page.key, ...(takes && { takes }) })
  const strayed = ({ label, screen, by }: NonNullable<typeof worst>) =>
    `up to ${px(Math.abs(by))} too ${by < 0 ? 'high' : 'low'} (“${label}” on ${site.screens.find((s) => s.key === screen)?.name}${off < links ? `; ${off} of them are off` : ''}).`
  const some = links === 1 ? '1 link' : `${links} links`
  return (
    <Group title="Presses" value={takesPresses ? 'handled here' : `a page script handles ${some}`} isWrong={off > 0 && !takesPresses}>
      <p className="mb-1.5 text-sm">
        {takesPresses
          ? 'Section links follow the settings here. The page’s own script still gets the press but no longer moves the page.'
          : `A page script handles ${some}. It stops ${worst ? strayed(worst) : 'in the right place.'}`}
        {!takesPresses && worst && isPutRight && ' The page then jumps into place.'}
        {takesPresses && links > 0 && ` The script still handles ${some}.`}
      </p>
      {takesPresses ? (
        <Button onClick={() => set()}>Let the page’s script handle them</Button>
      ) : (
        takePresses({ page, surveys }) && (
          <Button kind={off ? 'main' : 'plain'} onClick={() => set(true)}>
            Handle the presses
          </Button>
        )
      )}
    </Group>
  )
}

export function TravelTask() {
  const { page } = useWork()
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  return (
    <>
      <div>
        <ArrivalTable />
      </div>
      <div className="mt-3 border-t border-hair">
        <Presses />
        <EndSpace />
        <Offset />
        <HeaderSettings />
        <MotionSettings />
        <AddressSettings />
        <SkipLink />
        <PictureSizes />
        <Estimates />
      </div>
    </>
  )
}

function Offset() {
  const { page, run } = useWork()
  const { breathing, breathes = [] } = page.travel
  const others = breathes.length === 1 ? '1 screen differs' : `${breathes.length} screens differ`
  const value = isOwnTravel(page) ? 'the page’s own' : `header + ${px(breathing)}${breathes.length ? `, ${others}` : ''}`
  return (
    <Group title="Offset" value={value}>
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
    </Group>
  )
}
