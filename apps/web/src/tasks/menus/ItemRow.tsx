/** A menu item's row: label, target, properties, nesting and screens. */
import { useSortable } from '@dnd-kit/sortable'
import { CSS as Transforms } from '@dnd-kit/utilities'
import { Check, GripVertical, MoreHorizontal, X } from 'lucide-react'
import { isMade, LANGUAGE, leadsNowhere, nestItem, sectionOf, type Item, type ItemTarget, type Menu } from '@waybell/core'
import { memo, useCallback, useState } from 'react'
import { Button, Field, tint, type Problem } from '../../ui/index.tsx'
import { usePointed, useView, useWork } from '../../work/context.ts'
import { MotionField } from '../MotionField.tsx'
import { OnScreens } from '../OnScreens.tsx'
import { Target } from './Target.tsx'
import { ThreadEnd } from './ThreadEnd.tsx'

/** Focuses the item in the place of a removed one; after the last, the menu's list. */
function focusAfter(row: HTMLElement | null): void {
  const all = [...(row?.closest('[role="list"]')?.querySelectorAll<HTMLElement>('[data-item]') ?? [])]
  const n = row ? all.indexOf(row) : -1
  const next = all[n + 1] ?? all[n - 1]
  const key = next?.dataset.item
  setTimeout(() => key && document.querySelector<HTMLElement>(`[data-item="${CSS.escape(key)}"] [data-remove]`)?.focus())
}

interface ItemRowProps {
  menu: Menu
  item: Item
  /** Its nesting depth. */
  depth: number
  onMove: (item: string, by: 1 | -1) => void
}

const KEYS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight']

const checkLanguage = (tag: string): Problem | null =>
  tag === '' || LANGUAGE.test(tag) ? null : { message: 'Enter a language tag such as fr or pt-BR.', severity: 'error' }

/** The dragged row renders often, its content doesn't. */
export const ItemRow = memo(function ItemRow({ menu, item, depth, onMove }: ItemRowProps) {
  const { page, run } = useWork()
  const { point } = useView()
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.key })
  const section = sectionOf(item.target) ?? undefined
  const isPointed = usePointed(section)
  const index = page.sections.findIndex((s) => s.key === section)
  const nest = useCallback(
    (by: 1 | -1) => {
      const command = isMade(menu) ? nestItem(page, menu, item, by) : null
      if (command) run(command)
    },
    [page, menu, item, run],
  )
  const isLoose = useIsLoose(item)
  return (
    <div
      ref={setNodeRef}
      data-item={item.key}
      data-section={section}
      data-loose={isLoose || undefined}
      onPointerEnter={() => section && point(section)}
      onPointerLeave={() => point(null)}
      onKeyDown={(e) => {
        if (!e.altKey || !KEYS.includes(e.key)) return
        e.preventDefault()
        if (e.key === 'ArrowUp' || e.key === 'ArrowDown') return onMove(item.key, e.key === 'ArrowUp' ? -1 : 1)
        nest(e.key === 'ArrowRight' ? 1 : -1)
      }}
      style={{
        transform: Transforms.Translate.toString(transform),
        transition,
        boxShadow: index >= 0 ? `inset 4px 0 ${tint(index)}` : undefined,
      }}
      className={`flex items-start gap-1.5 border-b border-hair py-1 pr-1 pl-2 ${isPointed ? 'bg-wash' : ''}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move item ${item.label}`}
        className="flex h-6 w-5 flex-none cursor-grab items-center justify-center text-faint"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <ItemFields menu={menu} item={item} depth={depth} isLoose={isLoose} onNest={nest} />
    </div>
  )
})

/** True when it has no target in the page. */
function useIsLoose({ target, links }: Item): boolean {
  const { reading } = useWork()
  if (target.kind !== 'as-is') return false
  const link = reading.links.find((l) => links.includes(l.at))
  return link !== undefined && leadsNowhere(link)
}

interface ItemFieldsProps {
  menu: Menu
  item: Item
  depth: number
  isLoose: boolean
  onNest: (by: 1 | -1) => void
}

const ItemFields = memo(function ItemFields({ menu, item, depth, isLoose, onNest }: ItemFieldsProps) {
  const { page, reading, run } = useWork()
  const links = reading.links.filter((l) => item.links.includes(l.at))
  const link = links[0]
  const isBare = link?.status === 'button' || link?.status === 'group'
  const at = { page: page.key, menu: menu.key, item: item.key }
  const [isOpen, setOpen] = useState(false)
  const none = item.links.length > 0 ? 'as the page has it' : 'none'
  const lead = (target: ItemTarget) => run({ type: 'item/target', ...at, target })
  return (
    <>
      {depth > 0 && <span aria-hidden style={{ width: depth * 14 }} className="flex-none self-stretch border-r border-hair" />}
      <span className="min-w-0 flex-1">
        <Field
          label={`Label of item ${item.label}`}
          value={item.label}
          disabled={links.some((l) => !l.plain)}
          onCommit={(label) => run({ type: 'item/label', ...at, label })}
          className="font-semibold"
        />
        <span className="flex flex-wrap items-center gap-1 pl-1">
          <span aria-hidden className="text-faint">
            →
          </span>
          <Target
            named={`item ${item.label}`}
            target={item.target}
            link={link}
            isOwn={item.links.length > 0}
            mayOpen={isMade(menu)}
            isBare={isBare}
            isLoose={isLoose}
            onTake={lead}
          />
          {item.assumed && (
            <Button
              kind="quiet"
              aria-label={`assumed; confirm ${item.label}`}
              title="Found by its label. Press to confirm, or choose another."
              onClick={() => run({ type: 'item/target', ...at, target: item.target })}
            >
              <span className="text-xs whitespace-nowrap text-faint">assumed; confirm</span>
              <Check size={14} aria-hidden />
            </Button>
          )}
        </span>
        {isOpen && (
          <span className="grid grid-cols-[auto_1fr] items-center gap-x-2 pl-1 text-sm">
            <span className="text-faint">Tooltip</span>
            <Field
              label={`Tooltip of item ${item.label}`}
              value={item.tooltip ?? ''}
              placeholder={none}
              mayBeEmpty
              onCommit={(tooltip) => run({ type: 'item/tooltip', ...at, tooltip: tooltip || undefined })}
            />
            <span className="text-faint">Language</span>
            <Field
              label={`Language of item ${item.label}`}
              value={item.lang ?? ''}
              placeholder={none}
              mayBeEmpty
              check={checkLanguage}
              onCommit={(lang) => run({ type: 'item/lang', ...at, lang: lang || undefined })}
            />
            <span className="text-faint">Motion</span>
            <span>
              <MotionField
                of={`item ${item.label}`}
                value={item.motion}
                otherwise="As its menu"
                onChange={(motion) => run({ type: 'item/motion', ...at, motion })}
              />
            </span>
            {isMade(menu) && (
              <>
                <span className="text-faint">Level</span>
                <span className="flex items-center gap-1">
                  <Button
                    kind="quiet"
                    aria-label={`Lift item ${item.label}`}
                    title="Alt and left arrow"
                    disabled={!item.depth}
                    onClick={() => onNest(-1)}
                  >
                    Lift
                  </Button>
                  <Button kind="quiet" aria-label={`Nest item ${item.label}`} title="Alt and right arrow" onClick={() => onNest(1)}>
                    Nest
                  </Button>
                </span>
                <OnScreens of={`item ${item.label}`} off={item.off} onChange={(off) => run({ type: 'item/off', ...at, off })} />
              </>
            )}
          </span>
        )}
      </span>
      <Button
        kind="quiet"
        aria-expanded={isOpen}
        aria-label={`More of item ${item.label}`}
        title="Tooltip, language, motion, level, screens"
        onClick={() => setOpen(!isOpen)}
      >
        <MoreHorizontal size={14} aria-hidden />
      </Button>
      <Button
        kind="quiet"
        data-remove
        aria-label={`Remove item ${item.label}`}
        onClick={(e) => {
          focusAfter(e.currentTarget.closest<HTMLElement>('[data-item]'))
          run({ type: 'item/drop', ...at })
        }}
      >
        <X size={14} aria-hidden />
      </Button>
      {!isBare && <ThreadEnd row={item.key} isLoose={isLoose} onTake={lead} />}
    </>
  )
})
