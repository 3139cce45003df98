/** Every link of the page that stands in none of its menus, and where it leads. */
import { looseLinks, type ItemTarget, type LinkKind, type LooseLink } from '@waybell/core'
import { Heading, tint } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { usePointed, useWork } from '../../work/context.ts'
import { Signal, useSignal } from '../../work/signal.ts'
import { Target } from './Target.tsx'
import { ThreadEnd } from './ThreadEnd.tsx'

const filters: [LinkKind | 'all', string][] = [
  ['all', 'All'],
  ['broken', 'Broken'],
  ['here', 'To sections'],
  ['elsewhere', 'Elsewhere'],
]

/** Which of them are listed; whoever leads to a row has all of them shown. */
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
      <List count={shown.length} estimate={58} label="Links on the page" keyOf={(i) => String(shown[i]!.link.at)}>
        {(i) => <LinkRow {...shown[i]!} />}
      </List>
    </section>
  )
}

function LinkRow({ link, kind, target, section, at }: LooseLink) {
  const { page, run, live, point } = useWork()
  const isPointed = usePointed(section?.key)
  const index = section ? page.sections.indexOf(section) : -1
  const lead = (to: ItemTarget) => run({ type: 'link/target', page: page.key, at: link.at, target: to.kind === 'as-is' ? null : to })
  const name = link.label || 'a link without words'
  const place = at ? `by ${page.sections.indexOf(at) + 1} ${at.title}` : 'above the first section'
  return (
    <div
      data-link={link.at}
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
        </span>
        <span className="flex items-center gap-1 pl-1">
          <span aria-hidden className="text-faint">
            →
          </span>
          <Target named={`link ${name}`} target={target ?? { kind: 'as-is' }} link={link} isOwn isLoose={kind === 'broken'} onTake={lead} />
        </span>
      </span>
      <ThreadEnd row={`link ${link.at}`} isLoose={kind === 'broken'} onTake={lead} />
    </div>
  )
}
