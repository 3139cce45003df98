/** Space at the page's end, if its last sections can't arrive. */
import { roomAtEnd, endSpaceFor, endSpaceHolder, endSpaceOn, solveArrivals, type EndSpace, type Survey } from '@waybell/core'
import { useState } from 'react'
import { Group } from '../../ui/Group.tsx'
import { Button, px } from '../../ui/index.tsx'
import { useMeasured, useWork } from '../../work/context.ts'

const names: Record<EndSpace['as'], string> = { padding: 'as padding of', height: 'as min-height of' }

export function EndSpace() {
  const { page, reading, site, run } = useWork()
  const { surveys } = useMeasured()
  const [as, setAs] = useState<EndSpace['as']>(page.endSpace?.as ?? 'padding')
  const on = (of: (survey: Survey) => number) =>
    site.screens.flatMap(({ key, name }) => {
      const n = surveys[key] ? of(surveys[key]) : 0
      return n >= 1 ? [{ name, n }] : []
    })
  const short = on((survey) => roomAtEnd(solveArrivals(page, survey)))
  const left = on((survey) => endSpaceOn(page, survey))
  const most = (of: { n: number }[]) => Math.ceil(Math.max(...of.map(({ n }) => n)))
  const said = (of: typeof short) => of.map(({ name, n }) => `${px(n)} on ${name}`).join(', ')
  const set = (next: EndSpace | undefined) => run({ type: 'travel/end-space', page: page.key, endSpace: next })
  const endSpace = endSpaceFor(page, Object.values(surveys), as)
  const holder = page.sections.find((s) => s.key === (endSpace ?? page.endSpace)?.section)
  /** A heading with text after it can't be made higher itself. */
  const isBehind = !!holder && endSpaceHolder(holder, reading) !== null
  if (!short.length && !page.endSpace) return null
  return (
    <Group
      title="Space at the end"
      value={short.length ? `missing: ${said(short)}` : `added: ${said(left) || 'none'}`}
      isWrong={short.length > 0}
    >
      <div className="text-sm">
        {short.length > 0 && (
          <p className="mb-1.5">The page ends before its last sections can arrive. Missing: {said(short)}. Their items are still marked.</p>
        )}
        {endSpace && holder && (
          <p className="flex flex-wrap items-center gap-2">
            <Button onClick={() => set(endSpace)}>
              Add {most(short)} px {left.length > 0 && 'more '}at the end
            </Button>
            {isBehind ? (
              `after “${holder.title}”`
            ) : (
              <label>
                <span className="sr-only">How it is added</span>
                <select
                  value={as}
                  onChange={(e) => setAs(e.target.value as EndSpace['as'])}
                  className="min-h-7 rounded-sm border border-hair bg-sheet px-1"
                >
                  {Object.entries(names).map(([value, name]) => (
                    <option key={value} value={value}>
                      {name} “{holder.title}”
                    </option>
                  ))}
                </select>
              </label>
            )}
          </p>
        )}
        {short.length > 0 && !endSpace && <p>No section can hold the space.</p>}
        {page.endSpace && (
          <p className="mt-1 flex flex-wrap items-center gap-2">
            {left.length > 0
              ? `Space added, ${isBehind ? 'after' : names[page.endSpace.as]} “${holder?.title ?? '?'}”: ${said(left)}.`
              : 'No screen needs the added space.'}
            <Button onClick={() => set(undefined)}>Remove the space</Button>
          </p>
        )}
      </div>
    </Group>
  )
}
