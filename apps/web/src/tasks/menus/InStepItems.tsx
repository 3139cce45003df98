/** Items of a menu that keeps in step with another: theirs are the labels alone. */
import { inStepKey, sectionOf, type InStep, type Menu } from '@waybell/core'
import { Button, Field } from '../../ui/index.tsx'
import { List } from '../../ui/List.tsx'
import { useWork } from '../../work/context.ts'

export function InStepItems({ menu, inStep }: { menu: Menu; inStep: InStep }) {
  const { page, site, run, point } = useWork()
  const there = site.pages.find((p) => p.key === inStep.page)!
  const followed = there.menus.find((m) => m.key === inStep.menu)!
  const set = (next: InStep | undefined) => run({ type: 'menu/in-step', page: page.key, menu: menu.key, inStep: next })
  const relabel = (item: string, label: string) => {
    const others = inStep.labels.filter((l) => l.item !== item)
    const isOwn = label !== followed.items.find((i) => i.key === item)?.label
    set({ ...inStep, labels: isOwn ? [...others, { item, label }] : others })
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
              data-item={inStepKey(menu.key, source.key)}
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
