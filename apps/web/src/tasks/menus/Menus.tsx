/** Menus: items, their labels, order and targets, and which section is reached from where. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS as Transforms } from '@dnd-kit/utilities'
import { Check, GripVertical, MoreHorizontal, X } from 'lucide-react'
import {
  builtOf,
  freshKey,
  inScreenOrder,
  isMade,
  itemDepths,
  LANGUAGE,
  labelOf,
  leadsNowhere,
  makeBar,
  sectionOf,
  type Item,
  type ItemTarget,
  type Menu,
  type Section,
} from '@waybell/core'
import { memo, useCallback, useState } from 'react'
import { toast } from 'sonner'
import { Button, Field, Heading, tint, type Problem } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { usePointed, useWork } from '../../work/context.ts'
import { CoverageDialog } from './CoverageDialog.tsx'
import { LinksOnPage } from './LinksOnPage.tsx'
import { Target } from './Target.tsx'
import { ThreadEnd } from './ThreadEnd.tsx'

export function MenusTask() {
  const { page, surveys, run } = useWork()
  if (!page.sections.length)
    return (
      <>
        <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
        <BuiltMenus />
      </>
    )
  return (
    <>
      <p className="mb-2 flex justify-end">
        <CoverageDialog />
      </p>
      {page.menus.map((menu) => (
        <MenuSheet key={menu.key} menu={menu} />
      ))}
      {page.menus.length === 0 && (
        <Button
          kind="main"
          onClick={() =>
            run({ type: 'menu/add', page: page.key, index: 0, menu: makeBar(page.sections, inScreenOrder(Object.values(surveys))) })
          }
        >
          Make a menu of all sections
        </Button>
      )}
      <BuiltMenus />
      <LinksOnPage />
    </>
  )
}

/** What the page's own scripts build is shown as it was seen: nothing can be written into it. */
function BuiltMenus() {
  const { page, surveys } = useWork()
  const titles = new Map(page.sections.map((s) => [s.at, s.title]))
  return builtOf(Object.values(surveys)).menus.map(({ at, links }, n) => (
    <section key={n} aria-label={`Menu ${n + 1} built by a script`} className="mt-4">
      <Heading aside={<span className="text-xs text-faint">built by a script of the page</span>}>
        {links.length} links that no file has
      </Heading>
      <p className="mb-1 text-sm text-faint">
        They are tried with the rest{at === null ? ', and not marked' : ', and the current one is marked'}. To change them, change the
        script.
      </p>
      <List count={links.length} estimate={28} label={`Links built by a script, ${n + 1}`}>
        {(i) => {
          const { label, href, target, arrives } = links[i]!
          return (
            <p className="flex gap-2 border-b border-hair py-0.5 text-sm">
              <span className="min-w-0 flex-1 font-semibold">{label}</span>
              <span className={`min-w-0 flex-1 ${arrives ? '' : 'text-brick'}`}>
                → {titles.get(target ?? -1) ?? href}
                {arrives ? '' : ', which is not there'}
              </span>
            </p>
          )
        }}
      </List>
    </section>
  ))
}

function MenuSheet({ menu }: { menu: Menu }) {
  const { page, reading, run } = useWork()
  const depths = itemDepths(menu, reading)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const pageKey = page.key
  const move = useCallback(
    (item: string, index: number) => {
      if (index >= 0 && index < menu.items.length) run({ type: 'item/move', page: pageKey, menu: menu.key, item, index })
    },
    [pageKey, menu, run],
  )
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      move(
        String(active.id),
        menu.items.findIndex((i) => i.key === over.id),
      )
  }
  const reached = new Set(menu.items.flatMap((i) => sectionOf(i.target) ?? []))
  const unreached = page.sections.filter((s) => !reached.has(s.key))
  const add = (section: Section) => {
    const place = new Map(page.sections.map((s, i) => [s.key, i]))
    const after = menu.items.findLastIndex((i) => (place.get(sectionOf(i.target) ?? '') ?? Infinity) < place.get(section.key)!)
    run({
      type: 'item/add',
      page: page.key,
      menu: menu.key,
      index: after + 1,
      item: {
        key: freshKey(
          `${menu.key}-`,
          menu.items.map((i) => i.key),
        ),
        label: labelOf(section.title),
        target: { kind: 'section', section: section.key },
        links: [],
      },
    })
  }
  return (
    <section aria-label={menu.name}>
      <Heading
        aside={
          <span className="flex items-center gap-2 text-xs text-faint">
            {isMade(menu) ? 'made by Way Bell' : 'found in the page'}
            <Button
              kind="quiet"
              aria-label={`Remove menu ${menu.name}`}
              title={isMade(menu) ? 'Remove this menu' : 'Way Bell lets go of this menu; it stays in the page as it came'}
              onClick={() => {
                if (!run({ type: 'menu/drop', page: page.key, menu: menu.key }) || isMade(menu)) return
                toast(
                  `“${menu.name}” stays in the page as it came, with its own links; nothing of it is marked or changed. Undo brings it back.`,
                )
              }}
            >
              <X size={14} aria-hidden />
            </Button>
          </span>
        }
      >
        {menu.name}
      </Heading>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd} accessibility={saidOf(menu)}>
        <SortableContext items={menu.items.map((i) => i.key)} strategy={verticalListSortingStrategy}>
          <List count={menu.items.length} estimate={66} label={`Items of ${menu.name}`} keyOf={(i) => menu.items[i]!.key}>
            {(index) => <ItemRow menu={menu} item={menu.items[index]!} depth={depths[index]!} place={index} onMove={move} />}
          </List>
        </SortableContext>
      </DndContext>
      {unreached.length > 0 && (
        <div className="mt-3">
          <h3 className="mb-1 text-xs font-bold text-faint">Not in this menu</h3>
          <List count={unreached.length} estimate={32} label="Not in this menu" keyOf={(i) => unreached[i]!.key}>
            {(i) => (
              <div className="flex items-center gap-2 border-b border-hair py-0.5">
                <span className="min-w-0 flex-1 truncate text-sm">{unreached[i]!.title}</span>
                <Button kind="quiet" aria-label={`Add item for ${unreached[i]!.title}`} onClick={() => add(unreached[i]!)}>
                  Add item
                </Button>
              </div>
            )}
          </List>
        </div>
      )}
    </section>
  )
}

/** What a screen reader hears of a drag: which item, and where it stands. */
function saidOf({ items }: Menu): { announcements: Announcements; screenReaderInstructions: { draggable: string } } {
  const name = (key: string | number) => `“${items.find((i) => i.key === key)?.label ?? ''}”`
  const place = (key: string | number) => `${items.findIndex((i) => i.key === key) + 1} of ${items.length}`
  return {
    screenReaderInstructions: {
      draggable: 'Press Space to take the item up, the arrow keys to move it, Space to put it down, Escape to leave it where it was.',
    },
    announcements: {
      onDragStart: ({ active }) => `${name(active.id)} taken up; it stands at ${place(active.id)}.`,
      onDragOver: ({ active, over }) =>
        over ? `${name(active.id)} over place ${place(over.id)}.` : `${name(active.id)} outside the menu.`,
      onDragEnd: ({ active, over }) =>
        over ? `${name(active.id)} put down at place ${place(over.id)}.` : `${name(active.id)} put back at ${place(active.id)}.`,
      onDragCancel: ({ active }) => `${name(active.id)} left at place ${place(active.id)}.`,
    },
  }
}

/** The focus goes to the item that stands where one was removed; to the menu's list where it was the last. */
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
  /** In how many lists of its menu it stands. */
  depth: number
  /** Where it stands in its menu. */
  place: number
  onMove: (item: string, index: number) => void
}

const checkLanguage = (tag: string): Problem | null =>
  tag === '' || LANGUAGE.test(tag) ? null : { message: 'A language is a tag, as fr or pt-BR.', severity: 'error' }

/** Drawn again only for what changes in it, however often the list is laid out. */
const ItemRow = memo(function ItemRow({ menu, item, depth, place, onMove }: ItemRowProps) {
  const { page, reading, run, point } = useWork()
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: item.key })
  const section = sectionOf(item.target) ?? undefined
  const isPointed = usePointed(section)
  const index = page.sections.findIndex((s) => s.key === section)
  const links = reading.links.filter((l) => item.links.includes(l.at))
  const link = links[0]
  const isBare = link?.status === 'button' || link?.status === 'group'
  const loose = item.target.kind === 'as-is' && link !== undefined && leadsNowhere(link)
  const at = { page: page.key, menu: menu.key, item: item.key }
  const [isOpen, setOpen] = useState(false)
  const none = item.links.length > 0 ? 'as the page has it' : 'none'
  const lead = (target: ItemTarget) => run({ type: 'item/target', ...at, target })
  return (
    <div
      ref={setNodeRef}
      data-item={item.key}
      data-section={section}
      data-loose={loose || undefined}
      onPointerEnter={() => section && point(section)}
      onPointerLeave={() => point(null)}
      onKeyDown={(e) => {
        if (!e.altKey || (e.key !== 'ArrowUp' && e.key !== 'ArrowDown')) return
        e.preventDefault()
        onMove(item.key, place + (e.key === 'ArrowUp' ? -1 : 1))
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
            isLoose={loose}
            onTake={lead}
          />
          {item.takenToBe && (
            <Button
              kind="quiet"
              aria-label={`taken to be; confirm ${item.label}`}
              title="Found by its words, since the link does not say where it leads. Press to confirm, or choose another."
              onClick={() => run({ type: 'item/target', ...at, target: item.target })}
            >
              <span className="text-xs whitespace-nowrap text-faint">taken to be; confirm</span>
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
          </span>
        )}
      </span>
      <Button
        kind="quiet"
        aria-expanded={isOpen}
        aria-label={`More of item ${item.label}`}
        title="Tooltip and language"
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
      {!isBare && <ThreadEnd row={item.key} isLoose={loose} onTake={lead} />}
    </div>
  )
})
