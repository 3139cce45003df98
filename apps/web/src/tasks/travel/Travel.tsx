/** Travel: motion, header, breathing space, and where every link arrives on every screen. */
import { backingFor, coverOf, isOwnTravel, leastBreathing, roomAtEnd, solveArrivals, type Arrival, type Screen } from '@waybell/core'
import { Button, Heading, Pennant, px, tint } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { TableRows } from '../../ui/TableRows.tsx'
import { usePointed, useWork } from '../../work/context.ts'

export function TravelTask() {
  const { page, site, surveys, stale, run } = useWork()
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  const solved = site.screens.map((screen) => {
    const survey = surveys[screen.key] ?? null
    const arrivals = survey ? solveArrivals(page, survey) : []
    return { screen, survey, byKey: new Map(arrivals.map((a) => [a.section, a])), room: roomAtEnd(arrivals), cover: coverOf(page, survey) }
  })
  return (
    <>
      <Heading>Motion</Heading>
      <fieldset className="flex gap-4">
        <legend className="sr-only">Motion</legend>
        {[true, false].map((smooth) => (
          <label key={String(smooth)} className="flex min-h-7 items-center gap-1.5">
            <input
              type="radio"
              name="motion"
              checked={page.travel.smooth === smooth}
              onChange={() => run({ type: 'travel/smooth', page: page.key, smooth })}
            />
            {smooth ? 'Smooth' : 'Immediate'}
          </label>
        ))}
      </fieldset>
      <p className="text-xs text-faint">People who asked their system for less motion get the immediate one.</p>
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
      <dl className="mt-2 grid grid-cols-[1fr_auto_auto] gap-x-4 text-sm">
        <dt className="text-faint">Header covers on arrival</dt>
        {solved.map(({ screen, cover }) => (
          <dd key={screen.key} className="text-right tabular-nums">
            {screen.name} {px(cover.arrival)}
          </dd>
        ))}
      </dl>
      <Heading aside={<span className="text-xs text-faint">{stale.size ? 'being measured again' : 'as measured'}</span>}>
        <span className="inline-flex items-center gap-1.5">
          <Pennant /> Arrivals
        </span>
      </Heading>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-xs text-faint">
            <th scope="col" rowSpan={2} className="align-bottom font-normal">
              Section
            </th>
            {solved.map(({ screen }) => (
              <th scope="colgroup" colSpan={2} key={screen.key} className="border-l border-hair pr-1 text-right font-semibold">
                {screen.name}
              </th>
            ))}
          </tr>
          <tr className="border-b border-hair text-right text-xs text-faint">
            {solved.map(({ screen }) => [
              <th scope="col" key={screen.key + 'p'} className="border-l border-hair pr-2 pl-3 font-normal">
                stops at
              </th>,
              <th scope="col" key={screen.key + 'g'} className="pr-1 font-normal">
                gap
              </th>,
            ])}
          </tr>
        </thead>
        <TableRows count={page.sections.length} estimate={30}>
          {(i) => <ArrivalRow key={page.sections[i]!.key} index={i} solved={solved} />}
        </TableRows>
      </table>
      {solved.map(({ screen, room }) =>
        room > 0 ? (
          <p key={screen.key} className="mt-2 text-sm text-faint">
            {screen.name}: the page ends {px(room)} too early for its last sections to reach their place. Their items are marked all the
            same.
          </p>
        ) : null,
      )}
    </>
  )
}

interface Solved {
  screen: Screen
  byKey: ReadonlyMap<string, Arrival>
}

function ArrivalRow({ index, solved }: { index: number; solved: readonly Solved[] }) {
  const { page, point, live } = useWork()
  const section = page.sections[index]!
  const isPointed = usePointed(section.key)
  return (
    <tr
      data-arrival-row={section.id}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      className={`border-b border-hair ${isPointed ? 'bg-wash' : ''}`}
      style={{ boxShadow: `inset 4px 0 ${tint(index)}` }}
    >
      <th scope="row" className="py-1 pr-3 pl-2 text-left align-top font-normal">
        <button
          type="button"
          className="flex w-full gap-1.5 text-left hover:underline"
          onClick={() => live.follow('#' + section.id)}
          title={`Go to ${section.title} in the live page`}
        >
          <span className="flex-none tabular-nums">{index + 1}</span>
          <span className="min-w-0 wrap-anywhere">{section.title}</span>
        </button>
        {section.toTop && <span className="block text-xs text-faint">goes to the very top</span>}
      </th>
      {solved.map(({ screen, byKey }) => {
        const arrival = byKey.get(section.key)
        return [
          <td
            key={screen.key + 'p'}
            data-screen={screen.key}
            data-land={arrival?.land}
            className="border-l border-hair pr-2 pl-3 text-right whitespace-nowrap"
          >
            {arrival ? px(arrival.land) : '…'}
          </td>,
          <td key={screen.key + 'g'} className="pr-1 text-right whitespace-nowrap">
            {arrival && <Gap arrival={arrival} toTop={section.toTop} />}
          </td>,
        ]
      })}
    </tr>
  )
}

function Gap({ arrival, toTop }: { arrival: Arrival; toTop: boolean }) {
  if (!arrival.moves) return <span className="text-brick">no box</span>
  if (toTop) return <span className="text-faint">top</span>
  if (arrival.heading === 'covered' || arrival.heading === 'cut') return <span className="text-brick">{arrival.heading}</span>
  return arrival.shortfall > 0 ? <span className="text-faint">{px(arrival.shortfall)} short</span> : <>{px(arrival.gap)}</>
}

function HeaderChoiceRow() {
  const { page, survey, run } = useWork()
  const header = survey?.header
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
