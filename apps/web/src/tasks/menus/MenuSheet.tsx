/** One menu: its items in order; for a made one also form and visibility. */
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
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { Palette, SlidersHorizontal, X } from 'lucide-react'
import {
  dropMenu,
  freshKey,
  isFound,
  isMade,
  itemDepths,
  itemFor,
  moveItem,
  sectionOf,
  type Item,
  type Menu,
  type Section,
} from '@waybell/core'
import { useCallback, useState } from 'react'
import { toast } from 'sonner'
import { Button, Heading } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { useWork } from '../../work/context.ts'
import { SyncedItems } from './SyncedItems.tsx'
import { ItemRow } from './ItemRow.tsx'
import { formNames, MenuForm } from './MenuForm.tsx'
import { MenuLook } from './MenuLook.tsx'

export function MenuSheet({ menu }: { menu: Menu }) {
  const { page, site, reading, run } = useWork()
  const [open, setOpen] = useState<'form' | 'look' | null>(null)
  const depths = itemDepths(menu, reading)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const itemOf = (key: string | number) => menu.items.find((i) => i.key === key)!
  /** By one place: past nested items, or into the item before. */
  const move = useCallback(
    (key: string, by: 1 | -1) => {
      const at = menu.items.findIndex((i) => i.key === key)
      const others = by === 1 ? menu.items.slice(at + 1) : menu.items.slice(0, at).reverse()
      for (const to of others) {
        const command = moveItem(page, menu, menu.items[at]!, to)
        if (command) return run(command)
      }
    },
    [page, menu, run],
  )
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const command = over && active.id !== over.id ? moveItem(page, menu, itemOf(active.id), itemOf(over.id)) : null
    if (command) run(command)
  }
  const newKey = () =>
    freshKey(
      `${menu.key}-`,
      menu.items.map((i) => i.key),
    )
  const reached = new Set(menu.items.flatMap((i) => sectionOf(i.target) ?? []))
  const unreached = menu.grows === false ? [] : page.sections.filter((s) => !reached.has(s.key))
  const add = (section: Section) => {
    const place = new Map(page.sections.map((s, i) => [s.key, i]))
    const after = menu.items.findLastIndex((i) => (place.get(sectionOf(i.target) ?? '') ?? Infinity) < place.get(section.key)!)
    run({
      type: 'item/add',
      page: page.key,
      menu: menu.key,
      index: after + 1,
      item: itemFor(newKey(), section),
    })
  }
  const addGroup = () => {
    const item: Item = { key: newKey(), label: 'New group', target: { kind: 'group' }, links: [] }
    run({ type: 'item/add', page: page.key, menu: menu.key, index: menu.items.length, item })
  }
  return (
    <section aria-label={menu.name}>
      <Heading
        aside={
          <span className="flex items-center gap-2 text-xs text-faint">
            {isMade(menu) ? `made: ${formNames[menu.form.kind].toLowerCase()}` : 'found in the page'}
            {isMade(menu) && (
              <Button
                kind="quiet"
                aria-expanded={open === 'form'}
                aria-label={`Form of ${menu.name}`}
                title="Form, place, screens"
                onClick={() => setOpen(open === 'form' ? null : 'form')}
              >
                <SlidersHorizontal size={14} aria-hidden />
              </Button>
            )}
            <Button
              kind="quiet"
              aria-expanded={open === 'look'}
              aria-label={`Look of ${menu.name}`}
              title="Look per state"
              onClick={() => setOpen(open === 'look' ? null : 'look')}
            >
              <Palette size={14} aria-hidden />
            </Button>
            <Button
              kind="quiet"
              aria-label={`Remove menu ${menu.name}`}
              title={isMade(menu) ? 'Remove this menu' : 'Stop managing this menu; the page keeps it unchanged'}
              onClick={() => {
                if (!run(dropMenu(site, page, menu)) || isMade(menu)) return
                toast(`“${menu.name}” stays on the page unchanged and isn’t marked. Undo brings it back.`)
              }}
            >
              <X size={14} aria-hidden />
            </Button>
          </span>
        }
      >
        {menu.name}
      </Heading>
      {isMade(menu) && open === 'form' && <MenuForm menu={menu} />}
      {open === 'look' && <MenuLook menu={menu} />}
      {isFound(menu) && menu.form.shutBy !== undefined && (
        <p className="mb-2 flex items-center gap-2 text-sm">
          <span className="flex-1">It closes after each press.</span>
          <Button onClick={() => run({ type: 'menu/shut-by', page: page.key, menu: menu.key })}>Leave it open</Button>
        </p>
      )}
      {menu.syncedWith ? (
        <SyncedItems menu={menu} syncedWith={menu.syncedWith} />
      ) : (
        <>
          <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd} accessibility={saidOf(menu)}>
            <SortableContext items={menu.items.map((i) => i.key)} strategy={verticalListSortingStrategy}>
              <List count={menu.items.length} estimate={66} label={`Items of ${menu.name}`} keyOf={(i) => menu.items[i]!.key}>
                {(index) => <ItemRow menu={menu} item={menu.items[index]!} depth={depths[index]!} onMove={move} />}
              </List>
            </SortableContext>
          </DndContext>
          {isMade(menu) && (
            <p className="mt-1">
              <Button kind="quiet" onClick={addGroup}>
                Add a group
              </Button>
            </p>
          )}
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
        </>
      )}
    </section>
  )
}

/** Screen reader announcements of a drag. */
function saidOf({ items }: Menu): { announcements: Announcements; screenReaderInstructions: { draggable: string } } {
  const name = (key: string | number) => `“${items.find((i) => i.key === key)?.label ?? ''}”`
  const place = (key: string | number) => `${items.findIndex((i) => i.key === key) + 1} of ${items.length}`
  return {
    screenReaderInstructions: {
      draggable: 'Press Space to pick up the item and again to drop it. Arrow keys move it, Escape cancels.',
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
