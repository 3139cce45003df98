/** Items of a synced menu: only their labels can differ. */
import { syncedKey, sectionOf, type SyncSource, type Menu } from '@waybell/core'
import { Button, Field } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { useView, useWork } from '../../work/context.ts'

export function SyncedItems({ menu, syncedWith }: { menu: Menu; syncedWith: SyncSource }) {
  const { page, site, run } = useWork()
  const { point } = useView()
  const there = site.pages.find((p) => p.key === syncedWith.page)!
  const followed = there.menus.find((m) => m.key === syncedWith.menu)!
  const set = (next: SyncSource | undefined) => run({ type: 'menu/sync', page: page.key, menu: menu.key, syncedWith: next })
  const relabel = (item: string, label: string) => {
    const others = syncedWith.labels.filter((l) => l.item !== item)
    const isOwn = label !== followed.items.find((i) => i.key === item)?.label
    set({ ...syncedWith, labels: isOwn ? [...others, { item, label }] : others })
  }
  return (
    <>
      <p className="mb-1 flex items-center justify-between gap-2 text-sm">
        <span>
          Synced with “{followed.name}”{there === page ? '' : ` of ${there.file}`}
        </span>
        <Button kind="quiet" onClick={() => set(undefined)}>
          Stop syncing
        </Button>
      </p>
      <List count={followed.items.length} estimate={34} label={`Items of ${menu.name}`} keyOf={(i) => menu.items[i]!.key}>
        {(i) => {
          const [item, source] = [menu.items[i]!, followed.items[i]!]
          const section = sectionOf(item.target) ?? undefined
          return (
            <div
              data-item={syncedKey(menu.key, source.key)}
              data-section={section}
              onPointerEnter={() => section && point(section)}
              onPointerLeave={() => point(null)}
              style={{ paddingLeft: 8 + (item.depth ?? 0) * 14 }}
              className="border-b border-hair py-0.5"
            >
              <Field
                label={`Label of item ${item.label}`}
                value={item.label}
                onCommit={(label) => relabel(source.key, label)}
                className={item.label === source.label ? '' : 'font-semibold'}
              />
            </div>
          )
        }}
      </List>
    </>
  )
}
