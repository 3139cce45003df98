/** Travel: motion, header, breathing space, and where every link arrives on every screen. */
import { isOwnTravel, leastBreathing } from '@waybell/core'
import { Button, Heading } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useWork } from '../../work/context.ts'
import { ArrivalTable } from './ArrivalTable.tsx'
import { HeaderSettings } from './Header.tsx'
import { MotionSettings } from './Motion.tsx'
import { RoomAtEnd } from './RoomAtEnd.tsx'

export function TravelTask() {
  const { page, surveys, run } = useWork()
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  return (
    <>
      <MotionSettings />
      <Heading>Offset</Heading>
      {isOwnTravel(page) ? (
        <div className="border-l-4 border-teal bg-wash p-2 text-sm">
          <p className="mb-1.5">Links arrive by the page’s own offsets, which stay as they are.</p>
          <Button onClick={() => run({ type: 'travel/breathing', page: page.key, breathing: page.travel.breathing })}>
            Set the offset here instead
          </Button>
        </div>
      ) : (
        <NumberField
          label="Breathing space between header and section"
          unit="px"
          value={page.travel.breathing}
          min={leastBreathing(page, Object.values(surveys))}
          max={400}
          why="with less, a heading would go under the header"
          onCommit={(breathing) => run({ type: 'travel/breathing', page: page.key, breathing })}
        />
      )}
      <HeaderSettings />
      <RoomAtEnd />
      <ArrivalTable />
    </>
  )
}
