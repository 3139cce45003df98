/** The target of an item or link: chosen by name, number, ID or page, or typed as an address. */
import { Popover } from 'radix-ui'
import { useState } from 'react'
import { faultOfTarget, type ItemTarget, type PageLink, type SitePage } from '@waybell/core'
import { Finder, type Choice } from '../../ui/Finder.tsx'
import { useWork } from '../../work/context.ts'

interface TargetChoice extends Choice {
  /** Null if invalid. */
  target: ItemTarget | null
}

/** What a link of the page does unchanged. */
function asItIs(link: PageLink | undefined): string {
  if (link?.status === 'button') return 'A button of the page’s'
  if (link?.status === 'group') return 'Opens its list'
  return `As it is: ${link?.href || 'nothing'}`
}

const TOP = 'Top of the page'
const GROUP = 'Nowhere: opens a list'

function nameOf(target: ItemTarget, page: SitePage, pages: readonly SitePage[], link: PageLink | undefined): string {
  switch (target.kind) {
    case 'section': {
      const index = page.sections.findIndex((s) => s.key === target.section)
      return `${index + 1} ${page.sections[index]!.title}`
    }
    case 'page': {
      const there = pages.find((p) => p.key === target.page)!
      const section = there.sections.find((s) => s.key === target.section)
      return section ? `${there.file}: ${section.title}` : there.file
    }
    case 'outside':
      return target.address
    case 'top':
      return TOP
    case 'group':
      return GROUP
    case 'as-is':
      return asItIs(link)
  }
}

function choicesOf(
  target: ItemTarget,
  isOwn: boolean,
  mayOpen: boolean,
  page: SitePage,
  pages: readonly SitePage[],
  link: PageLink | undefined,
): TargetChoice[] {
  const now = JSON.stringify(target)
  const choice = (name: string, target: ItemTarget, address = ''): TargetChoice => ({
    key: JSON.stringify(target),
    name,
    target,
    also: address,
    aside: address && <span className="max-w-[45%] flex-none truncate font-mono text-xs text-faint">{address}</span>,
    isChosen: JSON.stringify(target) === now,
  })
  const others = pages.filter((p) => p !== page)
  return [
    ...page.sections.map((s, i) => choice(`${i + 1} ${s.title}`, { kind: 'section', section: s.key }, `#${s.id}`)),
    choice(TOP, { kind: 'top' }, '#'),
    ...(mayOpen ? [choice(GROUP, { kind: 'group' })] : []),
    ...(isOwn || target.kind === 'as-is' ? [choice(asItIs(link), { kind: 'as-is' })] : []),
    ...others.flatMap((other) => [
      choice(other.title || other.file, { kind: 'page', page: other.key, section: null }, other.file),
      ...other.sections.map((s) => choice(s.title, { kind: 'page', page: other.key, section: s.key }, `${other.file}#${s.id}`)),
    ]),
  ]
}

/** Typed text as an address, with its fault and likely intention. */
function typed(query: string, newTab: boolean): TargetChoice[] {
  if (!/[/:.@]/.test(query)) return []
  const target: ItemTarget = { kind: 'outside', address: query, newTab }
  const fault = faultOfTarget(target)
  const own: TargetChoice = {
    key: 'typed',
    name: fault ? `${query}: ${fault.why}` : query,
    target: fault ? null : target,
    aside: (
      <span className={`flex-none text-xs ${fault ? 'text-brick' : 'text-faint'}`}>{fault ? 'not an address' : 'outside address'}</span>
    ),
  }
  const meant = fault?.meant
  return meant?.kind === 'outside'
    ? [
        { key: 'meant', name: meant.address, target: meant, aside: <span className="flex-none text-xs text-faint">probably meant</span> },
        own,
      ]
    : [own]
}

interface Props {
  /** What leads there: `item Tickets`. */
  named: string
  target: ItemTarget
  /** The page's link, if any. */
  link: PageLink | undefined
  /** The page's own, which can stay as it is. */
  isOwn: boolean
  /** In a made menu, it may open a list instead. */
  mayOpen?: boolean
  /** It can't have an address. */
  isBare?: boolean
  /** A new link, made by choosing a target. */
  isNew?: boolean
  /** It leads nowhere. */
  isLoose: boolean
  onTake: (target: ItemTarget) => void
}

export function Target({ named, target, link, isOwn, mayOpen = false, isBare = false, isNew = false, isLoose, onTake }: Props) {
  const { page, site } = useWork()
  const [isOpen, setOpen] = useState(false)
  const name = isNew ? 'Choose where' : nameOf(target, page, site.pages, link)
  const newTab = target.kind === 'outside' && target.newTab
  return (
    <>
      <Popover.Root open={isOpen} onOpenChange={setOpen}>
        <Popover.Trigger
          disabled={isBare}
          aria-label={`Target of ${named}: ${name}`}
          className={`min-h-7 min-w-0 flex-1 truncate rounded-sm border bg-sheet px-1.5 text-left text-sm disabled:opacity-60 ${isLoose ? 'border-brick' : 'border-hair hover:border-faint'}`}
        >
          {name}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={2}
            collisionPadding={8}
            aria-label={`Where the ${named} leads`}
            className="z-20 w-[26rem] max-w-[90vw] border border-hair bg-sheet p-2 shadow-lg"
          >
            <Finder
              choices={choicesOf(target, isOwn, mayOpen, page, site.pages, link).filter((c) => !isNew || c.target?.kind !== 'as-is')}
              own={(query) => typed(query, newTab)}
              label={`Find a target for ${named}`}
              list="Targets"
              placeholder="Name, number, ID or address"
              none="No match. Type a whole address: https://ostrey.example"
              onTake={(choice) => {
                if (!choice.target) return
                setOpen(false)
                if (JSON.stringify(choice.target) !== JSON.stringify(target)) onTake(choice.target)
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {target.kind === 'outside' && (
        <label className="flex min-h-7 flex-none items-center gap-1 text-xs whitespace-nowrap">
          <input type="checkbox" checked={newTab} onChange={(e) => onTake({ ...target, newTab: e.target.checked })} />
          new tab
        </label>
      )}
    </>
  )
}
