/** A link's arrival card: real pictures of the viewport's top after it arrived, on each screen, from above and below. */
import { FAR, signOf, solveArrivals, TOLERANCE, type Screen, type Section, type Visit } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useMemo, useState } from 'react'
import { Picture } from '../../live/Picture.tsx'
import { Button, px } from '../../ui/index.tsx'
import { Sheet } from '../../ui/Sheet.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { gapSaid } from '../../work/gap.ts'

export function ArrivalCard({ section }: { section: Section }) {
  const { site } = useWork()
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button>See it arrive on every screen</Button>
      </Dialog.Trigger>
      <Sheet
        wide
        title={`Arrival at ${section.title}`}
        description="The top of the viewport after the link was followed. The right edge shows the covered part and the gap."
      >
        <ul className="flex flex-wrap gap-x-4 gap-y-3">
          {site.screens.map((screen) => (
            <OnScreen key={screen.key} section={section} screen={screen} />
          ))}
        </ul>
        <Dialog.Close asChild>
          <Button kind="main" className="mt-4">
            Done
          </Button>
        </Dialog.Close>
      </Sheet>
    </Dialog.Root>
  )
}

/** Height of a picture in px, and the part of the viewport it shows in px of the page; half the width of wide screens. */
const HEIGHT = 170
const SHOWN = 440
const SHARE = 0.5

type Seen = Visit | 'nothing' | undefined

const isSame = (a: Visit, b: Visit): boolean =>
  [a.scroll - b.scroll, a.top - b.top, a.covered - b.covered].every((d) => Math.abs(d) <= TOLERANCE)

/** One picture if both ways end alike. */
function OnScreen({ section, screen }: { section: Section; screen: Screen }) {
  const [both, setBoth] = useState<readonly [below: Visit, above: Visit] | 'nothing'>()
  const [alone, setAlone] = useState<Seen>()
  // A differing way is repeated for its own picture; if only a busy machine was to blame, it ends alike then.
  const isAsFromAbove = (below: Visit) => Array.isArray(both) && isSame(below, both[1] as Visit)
  const differs = Array.isArray(both) && !isAsFromAbove(both[0] as Visit) && !(typeof alone === 'object' && isAsFromAbove(alone))
  return (
    <>
      <Way
        section={section}
        screen={screen}
        words={differs ? 'from above' : 'from above and from below'}
        from={BOTH}
        seen={Array.isArray(both) ? (both[1] as Visit) : (both as 'nothing' | undefined)}
        onSeen={(visits) => setBoth(visits ? [visits[0]!, visits[1]!] : 'nothing')}
      />
      {differs && (
        <Way
          section={section}
          screen={screen}
          words="from below"
          from={BELOW}
          seen={alone}
          onSeen={(visits) => setAlone(visits?.[0] ?? 'nothing')}
        />
      )}
    </>
  )
}

const BOTH = [FAR, 0]
const BELOW = [FAR]

interface WayProps {
  section: Section
  screen: Screen
  words: string
  from: readonly number[]
  seen: Seen
  onSeen: (visits: Visit[] | null) => void
}

function Way({ section, screen, words, from, seen, onSeen }: WayProps) {
  const { siteKey, site, page } = useWork()
  const { surveys, edits } = useMeasured()
  const survey = surveys[screen.key]
  const arrival = useMemo(
    () => (survey ? solveArrivals(page, survey).find((a) => a.section === section.key) : undefined),
    [page, survey, section.key],
  )
  const shown = Math.min(screen.height, Math.max(SHOWN, screen.width * SHARE))
  const scale = HEIGHT / shown
  const visit = typeof seen === 'object' ? seen : null
  const sign = arrival && signOf(arrival, page, section, screen.key)
  const isOff = visit && arrival && Math.abs(visit.scroll - arrival.land) > TOLERANCE
  return (
    <li data-card={screen.key} style={{ width: Math.max(screen.width * scale, 130) }}>
      <div className="relative w-fit">
        <Picture
          siteKey={siteKey}
          file={page.file}
          scripts={site.scripts !== false}
          screen={screen}
          edits={edits}
          hash={`#${section.id}`}
          from={from}
          width={screen.width * scale}
          height={HEIGHT}
          title={`${screen.name}, ${words}`}
          onSeen={onSeen}
        />
        {visit && <Marks covered={visit.covered * scale} top={(visit.top - visit.scroll) * scale} />}
      </div>
      <p className="mt-0.5 text-xs">
        <span className="font-semibold">{screen.name}</span>, {words}
      </p>
      <p role="status" className="text-xs text-faint">
        {seen === undefined && 'On its way…'}
        {seen === 'nothing' && <span className="text-brick">No answer from the page yet.</span>}
        {visit &&
          !isOff &&
          `${sign && sign.sign !== 'clear' && sign.sign !== 'air' ? gapSaid(sign).whole : roomSeen(visit)}; stops at ${px(visit.scroll)}.`}
        {isOff && (
          <span className="text-brick">
            Stops at {px(visit.scroll)}; computed: {px(arrival.land)}.
          </span>
        )}
      </p>
    </li>
  )
}

/** A header that hides leaves more space from one side. */
const roomSeen = ({ top, scroll, covered }: Visit): string =>
  `${px(top - scroll - covered)} between ${covered < 1 ? 'the viewport’s top' : 'header'} and section`

/** At a picture's edge: the cover, and the space to the section. */
function Marks({ covered, top }: { covered: number; top: number }) {
  const edge = Math.min(covered, HEIGHT)
  const end = Math.max(0, Math.min(top, HEIGHT))
  return (
    <span aria-hidden>
      <span className="absolute top-0 right-0 w-1.5 bg-ink/50" style={{ height: edge }} />
      <span
        className={`absolute right-0 w-1.5 ${end >= edge ? 'bg-teal' : 'bg-brick'}`}
        style={{ top: Math.min(edge, end), height: Math.abs(end - edge) }}
      />
    </span>
  )
}
