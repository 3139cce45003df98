/** Picks an element on the live page, and what it can become. */
import type { PickedElement } from '@waybell/agent/types'
import { Button } from '../../ui/index.tsx'
import { useView, useWork } from '../../work/context.ts'
import { PickedPanel } from '../PickedPanel.tsx'
import { addPoint, addSection, candidateOf } from './steps.ts'

export function PickButton() {
  const { live, picking } = useView()
  return (
    <Button aria-pressed={picking !== null} onClick={() => live.pick(picking === null)}>
      {picking === null ? 'Pick on the page' : 'Stop picking'}
    </Button>
  )
}

export function PickPanel() {
  const work = useWork()
  const { page } = work
  const { live, picking } = useView()
  const sectionOf = (el: PickedElement) => page.sections.find((s) => s.at === el.at && !s.point)
  const done = (act: () => void) => () => {
    act()
    live.pick(false)
  }
  const makeSection = (el: PickedElement) => done(() => addSection(work, candidateOf(work, el)))
  return (
    <PickedPanel
      label="Picked element"
      hint="Press a part of the page to make it a section. Arrow keys move through the page’s tree, Enter confirms, Escape ends."
      onEnter={(el) => !sectionOf(el) && makeSection(el)()}
    >
      {(el) => (
        <>
          <p className="mb-2 truncate">“{el.title}”</p>
          <div className="flex flex-wrap gap-2">
            <Button kind={picking?.isTaken ? 'main' : 'plain'} disabled={sectionOf(el) !== undefined} onClick={makeSection(el)}>
              {sectionOf(el) ? 'A section already' : 'Make it a section'}
            </Button>
            <Button onClick={done(() => addPoint(work, { at: el.at, title: el.title, depth: 0 }))}>Put a point before it</Button>
          </div>
        </>
      )}
    </PickedPanel>
  )
}
