/** Which item is current at which scroll position, and the bell line. */
import { bellMap, bestBellOffset, coverOf, isFound, markStyles, safeBand, type FoundForm, type MarkStyle } from '@waybell/core'
import { Explained } from '../../ui/Explained.tsx'
import { Button, Dome, Heading, px, tint } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { TableRows } from '../../ui/TableRows.tsx'
import { useMeasured, useView, useWork } from '../../work/context.ts'

export function HighlightTask() {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const { screen, survey, live } = useView()
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  const measured = Object.values(surveys)
  const band = safeBand(page, measured)
  const best = measured.length ? bestBellOffset(page, measured) : null
  const isSafe = page.highlight.bellOffset >= band.low && page.highlight.bellOffset < band.high
  const sections = new Map(page.sections.map((s, i) => [s.key, { section: s, index: i }]))
  const stretches = survey ? bellMap(page, survey) : []
  if (page.highlight.pageMark)
    return (
      <div className="border-l-4 border-teal bg-wash p-2 text-sm">
        <p className="mb-1.5">The page’s own script already marks the current item correctly.</p>
        <Button onClick={() => run({ type: 'highlight/page-mark', page: page.key })}>Mark it here instead</Button>
      </div>
    )
  return (
    <>
      <Marks />
      <Heading>
        <span className="inline-flex items-center gap-1.5">
          <Dome />
          <Explained by="A line across the viewport: a section becomes current when its top crosses it.">Bell line</Explained>
        </span>
      </Heading>
      <p className="mb-2 text-sm text-faint">A section becomes current when its top crosses this line: its bell.</p>
      <NumberField
        label="Below the header"
        unit="px"
        value={page.highlight.bellOffset}
        min={0}
        max={600}
        onCommit={(bellOffset) => run({ type: 'highlight/bell', page: page.key, bellOffset })}
      />
      {measured.length > 0 && (
        <p className={`mt-2 text-sm ${isSafe ? 'text-faint' : 'text-brick'}`}>
          {band.low < band.high
            ? `${isSafe ? '' : 'Some links light the wrong item. '}From ${Math.ceil(band.low)} px ${Number.isFinite(band.high) ? `to ${Math.floor(band.high)} px` : 'on'}, every link lights its own item on every screen.`
            : 'No bell line suits all links: some sections are shorter than the breathing space.'}
        </p>
      )}
      {best !== null && best !== page.highlight.bellOffset && (
        <Button className="mt-2" onClick={() => run({ type: 'highlight/bell', page: page.key, bellOffset: best })}>
          Set the best bell line: {best} px
        </Button>
      )}
      {survey && (
        <>
          <Heading
            aside={<span className="text-xs text-faint">bell line at {px(coverOf(page, survey).arrival + page.highlight.bellOffset)}</span>}
          >
            Current section, {screen.name.toLowerCase()}
          </Heading>
          <table className="w-full text-sm">
            <thead>
              <tr className="border-b border-hair text-xs text-faint">
                <th scope="col" className="text-left font-normal">
                  Section
                </th>
                <th scope="col" className="text-right font-normal">
                  from
                </th>
                <th scope="col" className="text-right font-normal">
                  to
                </th>
              </tr>
            </thead>
            <TableRows count={stretches.length} estimate={30}>
              {(i) => {
                const { section, start, end } = stretches[i]!
                const known = section === null ? undefined : sections.get(section)
                return (
                  <tr key={start} className="border-b border-hair" style={known && { boxShadow: `inset 4px 0 ${tint(known.index)}` }}>
                    <th scope="row" className="py-1 pl-2 text-left font-normal">
                      <button type="button" className="text-left hover:underline" onClick={() => live.scrollTo(Math.ceil(start))}>
                        {known ? `${known.index + 1} ${known.section.title}` : 'none yet'}
                      </button>
                    </th>
                    <td className="text-right">{px(start)}</td>
                    <td className="text-right">{px(end)}</td>
                  </tr>
                )
              }}
            </TableRows>
          </table>
        </>
      )}
    </>
  )
}

const STYLES: Record<MarkStyle, string> = {
  page: 'The page’s own mark',
  line: 'Underline',
  edge: 'Bottom border',
  strong: 'Underline, overriding the page',
}

/** How each found menu marks its current item. */
function Marks() {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const found = page.menus.filter(isFound)
  if (!found.length) return null
  return (
    <>
      <Heading>Mark</Heading>
      {found.map((menu) => {
        const { mark = 'line', elements } = menu.form as FoundForm
        const own = Object.values(surveys)
          .flatMap((s) => s.menus)
          .find((m) => elements.includes(m.at) && m.pageMark?.name)?.pageMark
        const ownMark = typeof mark === 'string' ? (own ? { on: own.on, name: own.name } : null) : mark
        return (
          <label key={menu.key} className="mb-1 flex flex-wrap items-center gap-2">
            <span className="min-w-28">{menu.name}</span>
            <select
              className="min-h-7 min-w-0 flex-1 rounded-sm border border-hair bg-sheet px-1"
              value={typeof mark === 'string' ? mark : 'own'}
              onChange={(e) => {
                const chosen = e.target.value === 'own' ? ownMark! : (e.target.value as MarkStyle)
                run({ type: 'highlight/mark', page: page.key, menu: menu.key, ...(chosen === 'line' ? {} : { mark: chosen }) })
              }}
            >
              {markStyles.map((style) => (
                <option key={style} value={style}>
                  {STYLES[style]}
                </option>
              ))}
              {ownMark && <option value="own">The page’s class “{ownMark.name}”, moved along</option>}
            </select>
          </label>
        )
      })}
    </>
  )
}
