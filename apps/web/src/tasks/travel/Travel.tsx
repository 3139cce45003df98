/** Travel: motion, header, breathing space, and where every link arrives on every screen. */
import { backingFor, isOwnTravel, leastBreathing } from '@waybell/core'
import { Button, Heading, px } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useWork } from '../../work/context.ts'
import { ArrivalTable } from './ArrivalTable.tsx'
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
      <HeaderChoiceRow />
      <RoomAtEnd />
      <ArrivalTable />
    </>
  )
}

function HeaderChoiceRow() {
  const { page, survey, run } = useWork()
  if (!survey) return null
  const { header } = survey
  if (!header || header.at === null) return <p className="mt-2 text-sm text-faint">The page has no header of its own.</p>
  if (header.position === 'sticky' || header.position === 'fixed') {
    if (!page.header?.keep)
      return (
        <p className="mt-2 text-sm text-faint">
          The page keeps its header in view ({header.position}, {px(header.rest)}
          {header.moved !== header.rest && `, ${px(header.moved)} once the page has moved`}).
        </p>
      )
  }
  const keep = page.header?.keep ?? null
  return (
    <label className="mt-2 flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={keep !== null}
        disabled={!keep && !header.canStay}
        onChange={() =>
          run({
            type: 'header/choose',
            page: page.key,
            header: {
              at: header.at!,
              keep: keep ? null : header.position === 'absolute' ? 'fixed' : 'sticky',
              backing: page.header?.backing ?? (header.transparent ? backingFor(header.color, survey.background) : null),
            },
          })
        }
      />
      Keep the page’s header in view
      {!keep && !header.canStay && <span className="text-xs text-faint">(it cannot stay where it is in the page)</span>}
    </label>
  )
}
