/** Picking on the live page: a link goes to its row, anything else can become a link. */
import { looseLinks, type ItemTarget, type MadeLink, type NoLink } from '@waybell/core'
import { skipToken, useQuery } from '@tanstack/react-query'
import { useEffect, useId, useState } from 'react'
import type { PickedElement } from '@waybell/agent/types'
import { api } from '../../api.ts'
import { Button } from '../../ui/index.tsx'
import { useView, useWork } from '../../work/context.ts'
import { PickedPanel } from '../PickedPanel.tsx'
import { goToRow } from './goToRow.ts'
import { Target } from './Target.tsx'

const reasons: Record<NoLink, string> = {
  'is-link': 'It’s already a link.',
  'in-link': 'It’s inside a link, and links can’t be nested. Pick the link itself.',
  'in-button': 'It’s inside a button or field, which can’t contain a link. Pick the button itself.',
  'has-link': 'It contains a link, button or field, which a link can’t contain. Pick a part of it, or some of its words.',
  'is-control': 'It’s a field or a submit button, which can’t be a link.',
  'is-part': 'It’s part of a list or table, which a link can’t wrap. Pick its content, or some of its words.',
  'in-drawing': 'It’s part of a picture. Pick the whole picture.',
}

export function PickLink() {
  const { page, reading, site } = useWork()
  const { live, picking } = useView()
  const isOn = picking !== null
  useEffect(() => {
    if (!picking?.isTaken) return
    // The pressed element may be inside the link.
    const link = picking.way.map((e) => reading.links.find((l) => l.at === e.at)).findLast((l) => l !== undefined)
    const made = link
      ? undefined
      : looseLinks(page, reading, site.pages).find((l) => l.made && l.made.of !== 'words' && l.link.at === picking.way.at(-1)?.at)
    const item = link && page.menus.flatMap((m) => m.items).find((i) => i.links.includes(link.at))
    if (!link && !made) return
    live.pick(false)
    goToRow(item ? { item: item.key } : { link: (link ?? made!.link).at })
  }, [picking, page, reading, site, live])
  return (
    <Button aria-pressed={isOn} onClick={() => live.pick(!isOn)}>
      {isOn ? 'Stop picking' : 'Pick on the page'}
    </Button>
  )
}

/** The picked element, and what it can become. */
export function PickedPart() {
  return (
    <PickedPanel
      label="Picked part"
      hint="Press a link to find its row, or a picture, button or text to link it. Arrow keys move through the page’s tree, Escape ends."
    >
      {(el) => <LinkMaker key={el.at} el={el} />}
    </PickedPanel>
  )
}

function LinkMaker({ el }: { el: PickedElement }) {
  const { siteKey, page, run } = useWork()
  const { live } = useView()
  const [words, setWords] = useState('')
  const id = useId()
  const sought = words.trim().replace(/\s+/g, ' ')
  const isThere = el.words.includes(sought)
  // Text in a link or button belongs to it.
  const mayHaveWords =
    el.words !== '' && el.noLink !== 'is-link' && el.noLink !== 'in-link' && el.noLink !== 'in-button' && el.noLink !== 'is-control'
  const isNameless = el.words === '' && el.title === el.tag
  const of = sought !== '' ? 'words' : el.tag === 'button' ? 'button' : 'element'
  const asked = { of, label: of === 'words' ? sought : '' } as const
  const inFile = useQuery({
    queryKey: ['linkable', siteKey, page.key, page.source, el.at, asked],
    queryFn: isThere && (of === 'words' || el.noLink === null) ? () => api.linkable(siteKey, page.key, el.at, asked) : skipToken,
  })
  const why =
    of !== 'words' && el.noLink !== null
      ? reasons[el.noLink]
      : inFile.isError
        ? inFile.error.message
        : inFile.data?.isInFile === false
          ? of === 'words'
            ? 'A page script writes these words; they aren’t in the file. Link them in that script.'
            : 'In the page’s file this looks different, so it can’t be linked. Pick a part, or some of its words.'
          : null
  const take = (target: ItemTarget) => {
    const there =
      target.kind === 'section'
        ? page.sections.find((s) => s.key === target.section)?.title
        : target.kind === 'top'
          ? 'Top of the page'
          : null
    const made: MadeLink =
      of === 'words'
        ? { of, label: sought }
        : {
            of,
            ...(isNameless ? { label: there ?? el.title, isSaid: true } : { label: el.title }),
          }
    if (target.kind === 'as-is' || !run({ type: 'link/target', page: page.key, at: el.at, target, made })) return
    live.pick(false)
    goToRow({ link: el.at })
  }
  return (
    <>
      {mayHaveWords && el.tag !== 'button' && (
        <p className="mb-1 flex items-center gap-2">
          <label htmlFor={id} className="flex-none">
            Words
          </label>
          <input
            id={id}
            value={words}
            placeholder={el.noLink === null ? 'all of it, or some of its words' : 'some of its words'}
            aria-invalid={!isThere}
            aria-describedby={`${id}said`}
            onChange={(e) => setWords(e.target.value)}
            className={`min-h-7 min-w-0 flex-1 rounded-sm border bg-sheet px-1.5 ${isThere ? 'border-hair' : 'border-brick'}`}
          />
        </p>
      )}
      <p id={`${id}said`} className="mb-1 line-clamp-2 text-faint">
        {isThere ? `“${el.words.replaceAll('\n', ' ') || el.title}”` : 'These words aren’t in one piece of its text.'}
      </p>
      {why !== null ? (
        <p role="status" className="border-l-4 border-brass pl-2">
          {why}
        </p>
      ) : (
        isThere &&
        inFile.data && (
          <p className="flex items-center gap-2">
            <span className="flex-none">leads to</span>
            <Target
              named={`link ${sought || el.title}`}
              target={{ kind: 'as-is' }}
              link={undefined}
              isOwn={false}
              isNew
              isLoose={false}
              onTake={take}
            />
          </p>
        )
      )}
    </>
  )
}
