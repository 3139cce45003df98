/** The page's header: whether it stays, on which screens, on what ground, and what it does once the page has been scrolled. */
import { backingFor, coverOf, isLetGo, readColour, type HeaderChoice, type HeaderMoves, type SurveyHeader } from '@waybell/core'
import { px } from '../../ui/index.tsx'
import { Fold } from '../../ui/Fold.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useWork } from '../../work/context.ts'
import { OnScreens } from '../OnScreens.tsx'

/** What a header that does something begins with, in px. */
const AFTER = 80

export function HeaderSettings() {
  const { page, survey, run } = useWork()
  if (!survey) return null
  const { header } = survey
  if (!header || header.at === null) return <p className="mt-2 text-sm text-faint">The page has no header of its own.</p>
  const choice: HeaderChoice = page.header ?? { at: header.at, keep: null, backing: null }
  const choose = (next: HeaderChoice) => run({ type: 'header/choose', page: page.key, header: next })
  const staysByItself = (header.position === 'sticky' || header.position === 'fixed') && !choice.keep
  return (
    <div className="mt-2 text-sm">
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
          Keep the page’s header in view
          {!choice.keep && !header.canStay && <span className="text-xs text-faint">(it cannot stay where it is in the page)</span>}
        </label>
      )}
      {(staysByItself || choice.keep) && <HeaderFold choice={choice} onChoose={choose} />}
    </div>
  )
}

const stateOf = (header: SurveyHeader, isGone: boolean): string =>
  isGone
    ? 'Here the page’s header scrolls away with the page.'
    : `The page keeps its header in view (${header.position}, ${px(header.rest)}${header.moved === header.rest ? '' : `, ${px(header.moved)} once the page has moved`}).`

function HeaderFold({ choice, onChoose }: { choice: HeaderChoice; onChoose: (next: HeaderChoice) => void }) {
  const { page, site, survey, surveys } = useWork()
  const { backing, off, moves } = choice
  const without = (name: 'off' | 'moves'): HeaderChoice => {
    const next = { ...choice }
    delete next[name]
    return next
  }
  /** Nothing is said where it does nothing. */
  const setMoves = (next: HeaderMoves) => {
    const does = next.clear || next.shadow || next.away
    onChoose(does ? { ...choice, moves: next } : without('moves'))
  }
  const now: HeaderMoves = moves ?? { after: AFTER }
  const set = (name: 'clear' | 'shadow' | 'away', is: boolean) => {
    const next = { ...now }
    if (is) next[name] = true
    else delete next[name]
    setMoves(next)
  }
  const colour = backing === null ? null : readColour(backing)
  const write = (hex: string, opacity: number) => `rgb(${[1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)).join(' ')} / ${opacity}%)`
  const most = Math.max(0, ...site.screens.map(({ key }) => (surveys[key] ? coverOf(page, surveys[key]).ownMoved : 0)))
  return (
    <Fold title="What the header does" isSet={!!off || !!moves}>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 pl-2">
        <OnScreens
          label="In view on"
          of="the header in view"
          off={off}
          onChange={(next) => onChoose(next ? { ...choice, off: next } : without('off'))}
        />
        <span className="text-faint">Ground</span>
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
                aria-label="Ground of the header"
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
        <span className="col-span-2">
          <NumberField
            label="Once the page has been scrolled by"
            unit="px"
            value={now.after}
            min={0}
            max={5000}
            onCommit={(after) => setMoves({ ...now, after: Math.round(after) })}
          />
        </span>
        {(
          [
            ['clear', 'it has its ground, and none before'],
            ['shadow', 'it has a shadow'],
            ['away', 'it leaves on the way down, and comes back on the way up'],
          ] as const
        ).map(([name, words]) => (
          <label key={name} className="col-span-2 flex min-h-7 items-center gap-1.5 pl-3">
            <input type="checkbox" checked={!!now[name]} onChange={(e) => set(name, e.target.checked)} />
            {words}
          </label>
        ))}
        {moves && (
          <OnScreens
            label="Does so on"
            of="what the header does"
            off={moves.off}
            onChange={(next) => {
              const to = { ...moves }
              if (next) to.off = next
              else delete to.off
              setMoves(to)
            }}
          />
        )}
      </div>
      <p className="pl-2 text-xs text-faint">
        {moves?.away &&
          `Links leave room for the header: from above, where it is away on arrival, there are up to ${px(most)} more over a section; from below it is there. `}
        {moves && 'Without script it stays as it is.'}
      </p>
    </Fold>
  )
}
