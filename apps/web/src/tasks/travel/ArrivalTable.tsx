/** Sections by screens: the space between header and section after arrival, and what is wrong. */
import {
  badness,
  coverOf,
  FILLS,
  isOwnTravel,
  leastAdjust,
  motionOfPage,
  signOf,
  solveArrivals,
  travelTime,
  type Adjust,
  type Arrival,
  type Section,
  type Sign,
  sizeText,
} from '@waybell/core'
import { MoreHorizontal } from 'lucide-react'
import { useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { Heading, Pennant, tint } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { TableRows } from '../../ui/TableRows.tsx'
import { useMeasured, usePointed, useView, useWork } from '../../work/context.ts'
import { gapSaid } from '../../work/gap.ts'
import { OnScreens } from '../OnScreens.tsx'
import { ArrivalCard } from './ArrivalCard.tsx'
import { seconds } from './Motion.tsx'

interface Seen extends Arrival {
  said: Sign
}

interface RowOf {
  section: Section
  /** Its index on the page. */
  index: number
  /** By screen key; only measured ones. */
  seen: ReadonlyMap<string, Seen>
  /** Of its worst screen. */
  badness: number
}

function useRows(): RowOf[] {
  const { page, site } = useWork()
  const { surveys } = useMeasured()
  return useMemo(() => {
    const arrivals = site.screens.map(({ key }) => {
      const survey = surveys[key]
      return [key, new Map((survey ? solveArrivals(page, survey) : []).map((a) => [a.section, a]))] as const
    })
    return page.sections.map((section, index) => {
      const seen = new Map(
        arrivals.flatMap(([screen, of]): [string, Seen][] => {
          const arrival = of.get(section.key)
          return arrival ? [[screen, { ...arrival, said: signOf(arrival, page, section, screen) }]] : []
        }),
      )
      return { section, index, seen, badness: Math.max(0, ...[...seen.values()].map((s) => badness(s.said.sign))) }
    })
  }, [page, site.screens, surveys])
}

export function ArrivalTable() {
  const { page, site } = useWork()
  const { surveys, stale } = useMeasured()
  const { screen, showScreen } = useView()
  const rows = useRows()
  const [isWorstFirst, setWorstFirst] = useState(true)
  const [isFaulty, setFaulty] = useState(false)
  const [opened, setOpened] = useState<string | null>(null)
  const faulty = rows.filter((r) => r.badness > 0)
  const hides = rows.some((r) => [...r.seen.values()].some((s) => s.said.fromAbove !== undefined))
  // Stable: equally bad ones keep the page's order.
  const shown = useMemo(() => {
    const some = isFaulty ? rows.filter((r) => r.badness > 0) : rows
    return isWorstFirst ? [...some].sort((a, b) => b.badness - a.badness) : some
  }, [rows, isFaulty, isWorstFirst])
  return (
    <>
      <Heading aside={<span className="text-xs text-faint">{stale.size ? 'measuring…' : 'as measured'}</span>}>
        <span className="inline-flex items-center gap-1.5">
          <Pennant /> Arrivals
        </span>
      </Heading>
      <div className="mb-1 flex flex-wrap items-center gap-x-4 text-xs">
        <label className="flex min-h-6 items-center gap-1.5">
          <input type="checkbox" checked={isWorstFirst} onChange={(e) => setWorstFirst(e.target.checked)} /> Worst first
        </label>
        <label className="flex min-h-6 items-center gap-1.5">
          <input type="checkbox" checked={isFaulty} onChange={(e) => setFaulty(e.target.checked)} /> Problems only ({faulty.length})
        </label>
      </div>
      {/* Limits the table's height, so that the settings stay reachable. */}
      <div className="max-h-[max(18rem,calc(100vh-22rem))] overflow-auto" data-scroller>
        <table className="w-full text-sm">
          <caption className="mb-1 text-left text-xs text-faint">
            Gap between header and section, in px; press one to go there. {hides && 'After ↓: from above, where the header hides. '}Last
            column: where the page stops on {screen.name}, and the time from the top.
          </caption>
          <thead>
            <tr className="border-b border-hair text-right align-bottom text-xs text-faint">
              <th scope="col" className="min-w-28 text-left font-normal">
                Section
              </th>
              {site.screens.map(({ key, name, ...viewport }) => (
                <th scope="col" key={key} className="border-l border-hair font-normal">
                  <button
                    type="button"
                    className={`min-h-6 px-1 text-right hover:underline ${key === screen.key ? 'font-semibold text-ink' : ''}`}
                    title={`Show ${name}, ${sizeText(viewport)}`}
                    onClick={() => showScreen(key)}
                  >
                    {name}
                  </button>
                </th>
              ))}
              <th scope="col" className="border-l border-hair pl-1 font-normal">
                stops at
              </th>
            </tr>
          </thead>
          <tbody>
            <tr className="border-b border-hair text-right text-xs text-faint tabular-nums">
              <th scope="row" className="py-1 text-left font-normal">
                Header height
              </th>
              {site.screens.map(({ key }) => (
                <td key={key} className="border-l border-hair px-1">
                  {surveys[key] ? Math.round(coverOf(page, surveys[key]).arrival) : '…'}
                </td>
              ))}
              <td className="border-l border-hair" />
            </tr>
            {site.screens.some(({ key }) => surveys[key]?.bottom) && (
              <tr className="border-b border-hair text-right text-xs text-faint tabular-nums">
                <th scope="row" className="py-1 text-left font-normal">
                  Bottom bar height
                </th>
                {site.screens.map(({ key }) => (
                  <td key={key} className="border-l border-hair px-1">
                    {surveys[key] ? Math.round(surveys[key].bottom) : '…'}
                  </td>
                ))}
                <td className="border-l border-hair" />
              </tr>
            )}
          </tbody>
          <TableRows count={shown.length} estimate={30}>
            {(i) => {
              const { key } = shown[i]!.section
              return <ArrivalRow key={key} of={shown[i]!} isOpen={opened === key} onOpen={(is) => setOpened(is ? key : null)} />
            }}
          </TableRows>
        </table>
      </div>
      {shown.length === 0 && (
        <p className="py-2 text-sm text-faint">
          Every section is clear on every screen{site.screens.every((s) => surveys[s.key]) ? '' : ' that was measured so far'}.
        </p>
      )}
    </>
  )
}

function ArrivalRow({ of: { section, index, seen }, isOpen, onOpen }: { of: RowOf; isOpen: boolean; onOpen: (is: boolean) => void }) {
  const { page, site } = useWork()
  const { screen, point, live, showScreen } = useView()
  const isPointed = usePointed(section.key)
  const land = seen.get(screen.key)?.land
  const go = (to: string) => {
    // Follows the link on its screen.
    if (to !== screen.key) flushSync(() => showScreen(to))
    live.follow('#' + section.id)
  }
  const row = (
    <tr
      data-arrival-row={section.id}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      className={`border-b border-hair align-top ${isPointed ? 'bg-wash' : ''}`}
      style={{ boxShadow: `inset 4px 0 ${tint(index)}` }}
    >
      <th scope="row" className="py-1 pr-1 pl-2 text-left font-normal">
        <span className="flex items-start">
          <button
            type="button"
            className="flex w-full gap-1.5 text-left hover:underline"
            onClick={() => go(screen.key)}
            title={`Go to ${section.title} in the live page`}
          >
            <span className="flex-none tabular-nums">{index + 1}</span>
            <span className="min-w-0 flex-1 wrap-anywhere">{section.title}</span>
          </button>
          <button
            type="button"
            aria-expanded={isOpen}
            aria-label={`Room above ${section.title}`}
            title="Extra offset for this section, pictures of its arrival"
            className="grid min-h-6 min-w-6 flex-none place-items-center rounded-sm text-faint hover:bg-wash hover:text-ink"
            onClick={() => onOpen(!isOpen)}
          >
            <MoreHorizontal size={14} aria-hidden />
          </button>
        </span>
        {section.adjust && (
          <span className="block text-xs text-faint">
            {section.adjust.by === FILLS
              ? 'fills the window'
              : `${section.adjust.by > 0 ? '+' : '−'}${Math.abs(section.adjust.by)} px above it`}
          </span>
        )}
      </th>
      {site.screens.map(({ key, name }) => (
        <td key={key} data-screen={key} data-land={seen.get(key)?.land} className="border-l border-hair text-right tabular-nums">
          <Gap seen={seen.get(key)} screen={name} section={section.title} isShown={key === screen.key} onPress={() => go(key)} />
        </td>
      ))}
      <td className="border-l border-hair py-1 pl-1 text-right whitespace-nowrap tabular-nums">
        {land === undefined ? '…' : Math.round(land)}
        {!!land && motionOfPage(page) !== 'jump' && (
          <span className="block text-xs text-faint">{seconds(travelTime(motionOfPage(page), land))}</span>
        )}
      </td>
    </tr>
  )
  return isOpen ? (
    <>
      {row}
      <AdjustRow section={section} />
    </>
  ) : (
    row
  )
}

/** Settings of one section: very top, and extra offset. */
function AdjustRow({ section }: { section: Section }) {
  const { page, site, run } = useWork()
  const { surveys } = useMeasured()
  const at = { page: page.key, section: section.key }
  const { by = 0, off } = section.adjust ?? {}
  const adjust = (next: Adjust) => run({ type: 'section/adjust', ...at, adjust: next.by ? next : undefined })
  return (
    <tr className="border-b border-hair bg-wash">
      <td colSpan={site.screens.length + 2} className="px-2 py-2">
        <ArrivalCard section={section} />
        <label className="flex min-h-7 items-center gap-1.5">
          <input
            type="checkbox"
            checked={section.toTop}
            onChange={(e) => run({ type: 'section/to-top', ...at, toTop: e.target.checked })}
          />
          Goes to the very top
        </label>
        {isOwnTravel(page) && <p className="text-xs text-faint">Links arrive by the page’s own offsets, which stay as they are.</p>}
        {!section.toTop && !isOwnTravel(page) && (
          <>
            <label className="flex min-h-7 items-center gap-1.5">
              <input
                type="checkbox"
                checked={by === FILLS}
                onChange={(e) => adjust({ by: e.target.checked ? FILLS : 0, ...(off && { off }) })}
              />
              Fills the window: starts right below the header
            </label>
            {by !== FILLS && (
              <NumberField
                label="Extra offset"
                unit="px"
                value={by}
                min={leastAdjust(page, section, Object.values(surveys))}
                max={1000}
                why="less would put its heading under the header"
                onCommit={(next) => adjust({ by: next, ...(off && { off }) })}
              />
            )}
            {by !== 0 && <OnScreens of={section.title} off={off} onChange={(next) => adjust({ by, ...(next && { off: next }) })} />}
          </>
        )}
      </td>
    </tr>
  )
}

interface GapProps {
  seen: Seen | undefined
  screen: string
  section: string
  isShown: boolean
  onPress: () => void
}

function Gap({ seen, screen, section, isShown, onPress }: GapProps) {
  if (!seen) return <span className="block px-1 py-1 text-faint">…</span>
  const { figure, word, whole } = gapSaid(seen.said)
  const isBad = badness(seen.said.sign) > 0
  return (
    <button
      type="button"
      title={`${screen}: ${whole}`}
      aria-label={`${section}, ${screen}: ${whole}`}
      onClick={onPress}
      className={`min-h-7 w-full px-1 text-right hover:bg-wash ${isShown ? 'font-semibold' : ''} ${isBad ? 'text-brick' : ''}`}
    >
      {figure}
      {word && <span className="block text-xs">{word}</span>}
    </button>
  )
}
