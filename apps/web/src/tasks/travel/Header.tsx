/** The header: whether it stays, its screens and background, and what it does on scroll. */
import {
  backingFor,
  coverOf,
  firstSection,
  isLetGo,
  madeBar,
  partUnder,
  plainScreens,
  readColour,
  smallerBy,
  type HeaderChoice,
  type HeaderOnScroll,
  type Survey,
  type SurveyHeader,
} from '@waybell/core'
import { px } from '../../ui/index.tsx'
import { Group } from '../../ui/Group.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useMeasured, useView, useWork } from '../../work/context.ts'
import { OnScreens } from '../OnScreens.tsx'

/** Initial scroll position, in px. */
const AFTER = 80
/** Initial amount to shrink, in px. */
const SMALLER = 16

export function HeaderSettings() {
  const { page, run } = useWork()
  const { survey } = useView()
  if (!survey) return null
  const { header } = survey
  if (!header || header.at === null)
    return (
      <Group title="Header" value="none">
        <p className="text-sm text-faint">The page has no header.</p>
      </Group>
    )
  const choice: HeaderChoice = page.header ?? { at: header.at, keep: null, backing: null }
  const choose = (next: HeaderChoice) => run({ type: 'header/choose', page: page.key, header: next })
  const staysByItself = (header.position === 'sticky' || header.position === 'fixed') && !choice.keep
  return (
    <Group title="Header" value={valueOf(choice, header, isLetGo(page, survey.screen) || !(staysByItself || choice.keep))}>
      <div className="text-sm">
        {staysByItself ? (
          <p className="text-faint">{stateOf(header, isLetGo(page, survey.screen))}</p>
        ) : (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={choice.keep !== null}
              disabled={!choice.keep && !header.canStay}
              onChange={() =>
                choose({
                  ...choice,
                  keep: choice.keep ? null : header.position === 'absolute' ? 'fixed' : 'sticky',
                  backing: choice.backing ?? (header.transparent ? backingFor(header.color, survey.background) : null),
                })
              }
            />
            Keep header in view
            {!choice.keep && !header.canStay && <span className="text-xs text-faint">(its place on the page prevents that)</span>}
          </label>
        )}
        {(staysByItself || choice.keep) && <OnScroll choice={choice} onChoose={choose} />}
      </div>
    </Group>
  )
}

function valueOf({ onScroll, steady }: HeaderChoice, header: SurveyHeader, isGone: boolean): string {
  if (isGone) return 'scrolls away'
  const does = [
    (onScroll?.small || (header.moved < header.rest && !header.hides)) && `shrinks${steady ? ' in place' : ''}`,
    (onScroll?.away || header.hides) && 'hides on the way down',
    onScroll?.clear && 'gets a background',
    onScroll?.shadow && 'gets a shadow',
  ]
  return ['stays', ...does.filter(Boolean)].join(', ')
}

const stateOf = (header: SurveyHeader, isGone: boolean): string =>
  isGone
    ? 'The header scrolls away here.'
    : `The page keeps its header in view (${header.position}, ${px(header.rest)}${header.hides ? ', hidden on the way down' : header.moved === header.rest ? '' : `, ${px(header.moved)} after scrolling`}${header.shut ? `; ${px(header.shut.moved)} after the script closes it` : ''}).`

/** On which screens it stays, its background, and what it does after scrolling. */
function OnScroll({ choice, onChoose }: { choice: HeaderChoice; onChoose: (next: HeaderChoice) => void }) {
  const { page, site } = useWork()
  const { surveys } = useMeasured()
  const { survey } = useView()
  const { backing, off, onScroll } = choice
  const without = (name: 'off' | 'onScroll' | 'under' | 'steady'): HeaderChoice => {
    const next = { ...choice }
    delete next[name]
    return next
  }
  /** Absent if it does nothing. */
  const setOnScroll = (next: HeaderOnScroll) => {
    const does = next.clear || next.shadow || next.away || next.small
    onChoose(does ? { ...choice, onScroll: next } : without('onScroll'))
  }
  const now: HeaderOnScroll = onScroll ?? { after: AFTER }
  const first = firstSection(page)
  /** The header's own padding, without what is written. */
  const paddings = plainScreens(site.screens).flatMap(({ key }) => {
    const part = surveys[key] && partUnder(page, surveys[key])
    return part ? [{ screen: key, head: part.head, frame: part.frame }] : []
  })
  const shrinks = Object.values(surveys).some((s) => s.header?.makesUp)
  const set = (name: 'over' | 'clear' | 'shadow' | 'away', is: boolean) => {
    const next = { ...now }
    if (is) next[name] = true
    else delete next[name]
    setOnScroll(next)
  }
  const colour = backing === null ? null : readColour(backing)
  const write = (hex: string, opacity: number) => `rgb(${[1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)).join(' ')} / ${opacity}%)`
  const most = Math.max(0, ...site.screens.map(({ key }) => (surveys[key] ? coverOf(page, surveys[key]).ownMoved : 0)))
  return (
    <>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3">
        <OnScreens
          label="Fixed on"
          of="the header in view"
          off={off}
          onChange={(next) => onChoose(next ? { ...choice, off: next } : without('off'))}
        />
        <span className="text-faint">Background</span>
        <span className="flex flex-wrap items-center gap-x-3">
          <label className="flex min-h-7 items-center gap-1.5">
            <input
              type="checkbox"
              checked={backing !== null}
              onChange={(e) =>
                onChoose({
                  ...choice,
                  backing: e.target.checked && survey ? backingFor(survey.header?.color ?? survey.color, survey.background) : null,
                })
              }
            />
            Its own
          </label>
          {colour && (
            <>
              <input
                type="color"
                aria-label="Header background"
                value={colour.hex}
                onChange={(e) => onChoose({ ...choice, backing: write(e.target.value, colour.opacity) })}
                className="h-7 w-10"
              />
              <NumberField
                label="opacity"
                unit="%"
                value={colour.opacity}
                min={0}
                max={100}
                onCommit={(to) => onChoose({ ...choice, backing: write(colour.hex, Math.round(to)) })}
              />
            </>
          )}
        </span>
        {first && !madeBar(page) && (
          <label className="col-span-2 flex min-h-7 items-center gap-1.5">
            <input
              type="checkbox"
              checked={!!choice.under}
              disabled={!choice.under && !paddings.length}
              onChange={(e) => onChoose(e.target.checked ? { ...choice, under: paddings } : without('under'))}
            />
            “{first.title}” starts under it and fills the screen
            {!choice.under && !paddings.length && <span className="text-xs text-faint">(it starts too far down)</span>}
          </label>
        )}
        <span className="col-span-2">
          <NumberField
            label="After scrolling"
            unit="px"
            value={now.after}
            min={0}
            max={5000}
            onCommit={(after) => setOnScroll({ ...now, after: Math.round(after) })}
          />
          <label className="flex min-h-7 items-center gap-1.5 pl-3">
            <input type="checkbox" checked={!!now.over} disabled={!onScroll} onChange={(e) => set('over', e.target.checked)} />
            or once the first section has passed:
          </label>
        </span>
        {(
          [
            ['clear', 'gets its background'],
            ['shadow', 'gets a shadow'],
            ['away', 'hides on the way down, returns on the way up'],
          ] as const
        ).map(([name, words]) => (
          <label key={name} className="col-span-2 flex min-h-7 items-center gap-1.5 pl-3">
            <input type="checkbox" checked={!!now[name]} onChange={(e) => set(name, e.target.checked)} />
            {words}
          </label>
        ))}
        <SmallerField now={now} setOnScroll={setOnScroll} />
        {(shrinks || choice.steady) && (
          <label className="col-span-2 flex min-h-7 items-center gap-1.5 pl-3">
            <input
              type="checkbox"
              checked={!!choice.steady}
              onChange={(e) => onChoose(e.target.checked ? { ...choice, steady: true } : without('steady'))}
            />
            keeps its place while it shrinks
          </label>
        )}
        {onScroll && (
          <OnScreens
            label="Applies on"
            of="what the header does"
            off={onScroll.off}
            onChange={(next) => {
              const to = { ...onScroll }
              if (next) to.off = next
              else delete to.off
              setOnScroll(to)
            }}
          />
        )}
      </div>
      <p className="text-xs text-faint">
        {onScroll?.away && `Links leave room for it: arriving from above, the gap is up to ${px(most)} larger. `}
        {onScroll && 'Needs the script.'}
      </p>
    </>
  )
}

/** Limited by its padding, which its margin compensates. */
function SmallerField({ now, setOnScroll }: { now: HeaderOnScroll; setOnScroll: (next: HeaderOnScroll) => void }) {
  const { page, site } = useWork()
  const { surveys } = useMeasured()
  const measured = site.screens.flatMap(({ key, name }) => (surveys[key]?.header ? [{ name, survey: surveys[key] }] : []))
  const most = (survey: Survey) => smallerBy({ header: { ...headerOf(survey), onScroll: { after: 0, small: 400 } } }, survey)
  const headerOf = (survey: Survey): HeaderChoice => page.header ?? { at: survey.header!.at!, keep: null, backing: null }
  const can = Math.max(0, ...measured.map(({ survey }) => most(survey)))
  const { small } = now
  if (!can && !small)
    return <p className="col-span-2 pl-3 text-xs text-faint">Can’t shrink: it already shrinks by itself, or has no padding.</p>
  const less = small ? measured.filter(({ survey }) => most(survey) < small) : []
  const set = (to: number | undefined) => {
    const next = { ...now }
    if (to === undefined) delete next.small
    else next.small = to
    setOnScroll(next)
  }
  return (
    <span className="col-span-2 flex flex-wrap items-center gap-x-3 pl-3">
      <label className="flex min-h-7 items-center gap-1.5">
        <input type="checkbox" checked={small !== undefined} onChange={(e) => set(e.target.checked ? Math.min(can, SMALLER) : undefined)} />
        shrinks
      </label>
      {small !== undefined && (
        <NumberField
          label="by"
          unit="px"
          value={small}
          min={1}
          max={Math.max(can, small)}
          why="It’s limited by its padding."
          onCommit={(to) => set(Math.round(to))}
        />
      )}
      {less.length > 0 && (
        <span className="text-xs text-faint">{less.map(({ name, survey }) => `On ${name} by ${px(most(survey))}`).join(', ')}.</span>
      )}
    </span>
  )
}
