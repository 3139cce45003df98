/** The page's links outside menus, and where they lead. */
import { linkKey, looseLinks, type ItemTarget, type LinkKind, type LooseLink } from '@waybell/core'
import { MoreHorizontal, X } from 'lucide-react'
import { useState } from 'react'
import { Button, Heading, tint } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { usePointed, useView, useWork } from '../../work/context.ts'
import { Signal, useSignal } from '../../work/signal.ts'
import { MotionField } from '../MotionField.tsx'
import { Target } from './Target.tsx'
import { ThreadEnd } from './ThreadEnd.tsx'

const filters: [LinkKind | 'all', string][] = [
  ['all', 'All'],
  ['broken', 'Broken'],
  ['here', 'To sections'],
  ['elsewhere', 'Elsewhere'],
]

/** Filter of the list; going to a row shows all. */
export const linksShown = new Signal<LinkKind | 'all'>('all')

export function LinksOnPage() {
  const { page, reading, site } = useWork()
  const filter = useSignal(linksShown, (now) => now)
  const links = looseLinks(page, reading, site.pages)
  if (!links.length) return null
  const of = (kind: LinkKind | 'all') => links.filter((l) => kind === 'all' || l.kind === kind)
  const shown = of(filter)
  return (
    <section aria-label="Links on the page" className="mt-5">
      <Heading
        aside={
          <select
            aria-label="Show links"
            value={filter}
            onChange={(e) => linksShown.set(e.target.value as LinkKind | 'all')}
            className="min-h-7 rounded-sm border border-hair bg-sheet px-1 text-sm"
          >
            {filters.map(([kind, name]) => (
              <option key={kind} value={kind}>
                {name} ({of(kind).length})
              </option>
            ))}
          </select>
        }
      >
        Links on the page
      </Heading>
      {shown.length === 0 && <p className="py-1 text-sm text-faint">None of this kind.</p>}
      <List count={shown.length} estimate={58} label="Links on the page" keyOf={(i) => rowOf(shown[i]!)}>
        {(i) => <LinkRow {...shown[i]!} />}
      </List>
    </section>
  )
}

const rowOf = ({ link: { at }, made }: LooseLink) => linkKey(made ? { at, made } : { at })

function LinkRow(loose: LooseLink) {
  const { link, kind, target, section, at, made } = loose
  const { page, run } = useWork()
  const { live, point } = useView()
  const isPointed = usePointed(section?.key)
  const [isOpen, setOpen] = useState(false)
  const motion = page.motions?.find((m) => m.at === link.at)?.motion
  const index = section ? page.sections.indexOf(section) : -1
  const lead = (to: ItemTarget) =>
    run({ type: 'link/target', page: page.key, at: link.at, target: to.kind === 'as-is' ? null : to, ...(made && { made }) })
  const name = link.label || 'a link without words'
  const place = at ? `by ${page.sections.indexOf(at) + 1} ${at.title}` : 'above the first section'
  return (
    <div
      data-link={rowOf(loose)}
      data-section={section?.key}
      data-loose={kind === 'broken' || undefined}
      onPointerEnter={() => section && point(section.key)}
      onPointerLeave={() => point(null)}
      style={{ boxShadow: index >= 0 ? `inset 4px 0 ${tint(index)}` : undefined }}
      className={`flex border-b border-hair py-1 pr-1 pl-2 ${isPointed ? 'bg-wash' : ''}`}
    >
      <span className="min-w-0 flex-1">
        <span className="flex items-baseline gap-2">
          <button
            type="button"
            title="Show it on the page"
            onClick={() => live.show(link.at)}
            className={`min-h-6 min-w-0 flex-1 truncate text-left font-semibold hover:underline ${link.label ? '' : 'text-faint italic'}`}
          >
            {name}
          </button>
          <span className="max-w-[55%] flex-none truncate text-xs text-faint">{place}</span>
          {made && (
            <Button
              kind="quiet"
              aria-label={`No link: ${name}`}
              title={`${made.of === 'words' ? 'These words are' : made.of === 'button' ? 'It is a button that is' : 'It is'} no link in the page; take the link away`}
              onClick={() => lead({ kind: 'as-is' })}
            >
              <X size={12} aria-hidden />
            </Button>
          )}
        </span>
        <span className="flex items-center gap-1 pl-1">
          <span aria-hidden className="text-faint">
            →
          </span>
          <Target
            named={`link ${name}`}
            target={target ?? { kind: 'as-is' }}
            link={made ? undefined : link}
            isOwn={!made}
            isLoose={kind === 'broken'}
            onTake={lead}
          />
        </span>
        {isOpen && (
          <span className="block pl-1 text-sm">
            <span className="mr-2 text-faint">Motion</span>
            <MotionField
              of={`link ${name}`}
              value={motion}
              otherwise="As the page"
              onChange={(to) => run({ type: 'link/motion', page: page.key, at: link.at, motion: to })}
            />
          </span>
        )}
      </span>
      {!made && (
        <Button kind="quiet" aria-expanded={isOpen} aria-label={`More of link ${name}`} title="Motion" onClick={() => setOpen(!isOpen)}>
          <MoreHorizontal size={14} aria-hidden />
        </Button>
      )}
      <ThreadEnd row={`link ${rowOf(loose)}`} isLoose={kind === 'broken'} onTake={lead} />
    </div>
  )
}
