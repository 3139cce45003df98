/** The page's motion for links, exceptions of menus, and the address rule. */
import { ADDRESS_RULES, motionOfPage, solveArrivals, travelTime, type AddressRule, type Motion } from '@waybell/core'
import { Button } from '../../ui/index.tsx'
import { Fold } from '../../ui/Fold.tsx'
import { Group } from '../../ui/Group.tsx'
import { useView, useWork } from '../../work/context.ts'
import { isSameMotion, MotionField, motionSaid, TimedFields, USUAL } from '../MotionField.tsx'

export const seconds = (ms: number): string => `${(ms / 1000).toFixed(ms < 1000 ? 2 : 1)} s`

export function MotionSettings() {
  const { page, site, run } = useWork()
  const { survey, live } = useView()
  const motion = motionOfPage(page)
  const kind = typeof motion === 'object' ? 'timed' : motion
  const set = (next: Motion) =>
    run({ type: 'travel/smooth', page: page.key, smooth: next !== 'jump', ...(typeof next === 'object' && { timed: next }) })
  const others = site.pages.filter((p) => p !== page && p.sections.length > 0 && !isSameMotion(motionOfPage(p), motion))
  const farthest = survey && solveArrivals(page, survey).reduce((most, a) => Math.max(most, a.land), 0)
  const last = page.sections[page.sections.length - 1]!
  const own = page.menus.filter((m) => m.motion).length + page.menus.flatMap((m) => m.items).filter((i) => i.motion).length
  const links = own + (page.motions?.length ?? 0)
  return (
    <Group title="Motion" value={`${motionSaid(motion)}${links ? `, ${links === 1 ? '1 differs' : `${links} differ`}` : ''}`}>
      <fieldset className="flex flex-wrap gap-x-4">
        <legend className="sr-only">Motion</legend>
        {(
          [
            ['smooth', 'Smooth'],
            ['timed', 'Timed'],
            ['jump', 'Immediate'],
          ] as const
        ).map(([value, name]) => (
          <label key={value} className="flex min-h-7 items-center gap-1.5">
            <input type="radio" name="motion" checked={kind === value} onChange={() => set(value === 'timed' ? USUAL : value)} />
            {name}
          </label>
        ))}
      </fieldset>
      {typeof motion === 'object' && <TimedFields of="all links" value={motion} onChange={set} />}
      <p className="text-xs text-faint">
        {farthest && motion !== 'jump' ? `The longest way takes ${seconds(travelTime(motion, farthest))}. ` : ''}
        {typeof motion === 'object' && 'Without the script, the browser’s smooth motion. '}
        With reduced motion, links are immediate.
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        <Button kind="quiet" title="In the live page" onClick={() => live.follow('#' + last.id)}>
          Try it down
        </Button>
        <Button kind="quiet" title="In the live page" onClick={() => live.follow('#' + page.sections[0]!.id)}>
          and up again
        </Button>
        {others.length > 0 && (
          <Button
            kind="quiet"
            onClick={() =>
              run({
                type: 'batch',
                label: 'Same on all pages',
                commands: others.map((p) => ({
                  type: 'travel/smooth',
                  page: p.key,
                  smooth: page.travel.smooth,
                  ...(page.travel.timed && { timed: page.travel.timed }),
                })),
              })
            }
          >
            The same on {others.length === 1 ? '1 other page' : `${others.length} other pages`}
          </Button>
        )}
      </div>
      <Fold title={`Exceptions${links ? ` (${links})` : ''}`} isSet={links > 0}>
        {page.menus.map((menu) => {
          const different = menu.items.filter((i) => i.motion)
          return (
            <div key={menu.key} className="border-b border-hair py-1 pl-2 text-sm">
              <span className="mr-2 font-semibold">{menu.name}</span>
              <MotionField
                of={menu.name}
                value={menu.motion}
                otherwise="As the page"
                onChange={(to) => run({ type: 'menu/motion', page: page.key, menu: menu.key, motion: to })}
              />
              {different.length > 0 && (
                <span className="block text-xs text-faint">
                  Otherwise: {different.map((i) => `${i.label} ${motionSaid(i.motion!)}`).join(', ')}.
                </span>
              )}
            </div>
          )
        })}
        <p className="pl-2 text-xs text-faint">Set a single link’s motion in Menus, under its three dots.</p>
      </Fold>
    </Group>
  )
}

const ruleNames: Record<AddressRule, string> = {
  replace: 'Replaces the history entry',
  none: 'Isn’t written',
}

export function AddressSettings() {
  const { page, run } = useWork()
  const { address, follows } = page.travel
  const set = (next: { address?: AddressRule | undefined; follows?: true | undefined }) =>
    run({ type: 'travel/address', page: page.key, ...(next.address && { address: next.address }), ...(next.follows && { follows: true }) })
  return (
    <Group
      title="Address and history"
      value={`${address ? ruleNames[address].toLowerCase() : 'adds entries'}${follows ? ', follows the scroll' : ''}`}
    >
      <label className="flex flex-wrap items-center gap-x-2 text-sm">
        A link’s hash
        <select
          value={address ?? ''}
          onChange={(e) => set({ address: (e.target.value as AddressRule | '') || undefined, follows })}
          className="min-h-7 min-w-0 rounded-sm border border-hair bg-sheet px-1 text-sm"
        >
          <option value="">Adds a history entry</option>
          {ADDRESS_RULES.map((rule) => (
            <option key={rule} value={rule}>
              {ruleNames[rule]}
            </option>
          ))}
        </select>
      </label>
      <label className="flex min-h-7 items-center gap-1.5 text-sm">
        <input type="checkbox" checked={!!follows} onChange={(e) => set({ address, follows: e.target.checked || undefined })} />
        The address follows the scroll
      </label>
      {(address || follows) && (
        <p className="pl-2 text-xs text-faint">
          Without the script, each click adds a history entry and the address doesn’t follow the scroll.
        </p>
      )}
    </Group>
  )
}
