/** Removing sections with links to them: asks what happens to the links. */
import { dropSections, leadersTo, looseLinks, type Command, type ItemTarget, type Otherwise, type Section } from '@waybell/core'
import { Dialog, RadioGroup } from 'radix-ui'
import { useState } from 'react'
import { Button } from '../../ui/index.tsx'
import { Sheet } from '../../ui/Sheet.tsx'
import { useWork, type Work } from '../../work/context.ts'
import { Signal, useSignal } from '../../work/signal.ts'

interface Asked {
  sections: Section[]
  /** Once they are removed. */
  then: () => void
}

const asked = new Signal<Asked | null>(null)

/** The page's own links outside menus to them. */
const plainTo = ({ site, page, reading }: Work, sections: readonly Section[]) =>
  looseLinks(page, reading, site.pages).filter((l) => !l.target && l.section && sections.includes(l.section))

/** Removes them at once if nothing leads there. */
export function removeSections(work: Work, sections: Section[], then: () => void = () => {}): void {
  const { site, page, run } = work
  if (leadersTo(site, page, sections).length || plainTo(work, sections).length) asked.set({ sections, then })
  else if (run(dropSections(site, page, sections))) then()
}

export function Removing() {
  const now = useSignal(asked, (value) => value)
  return (
    <Dialog.Root open={now !== null} onOpenChange={(isOpen) => !isOpen && asked.set(null)}>
      {now && <Question {...now} />}
    </Dialog.Root>
  )
}

function Question({ sections, then }: Asked) {
  const work = useWork()
  const { site, page, run } = work
  const plain = plainTo(work, sections)
  const leaders = [...leadersTo(site, page, sections), ...plain.map(({ link }) => ({ from: page, label: link.label || null, isOwn: true }))]
  const left = page.sections.filter((s) => !sections.includes(s))
  // The parent or previous section is closest to the links' meaning.
  const first = page.sections.indexOf(sections[0]!)
  const [section, setSection] = useState(page.sections.findLast((s, i) => i < first && left.includes(s))?.key ?? left[0]?.key)
  const [way, setWay] = useState('as-is')
  const [added, own] = [leaders.filter((l) => !l.isOwn).length, leaders.filter((l) => l.isOwn).length]
  const names = leaders.map(
    ({ from, label }) => `${label === null ? 'a link on the page' : `“${label}”`}${from === page ? '' : ` on ${from.file}`}`,
  )
  const many = sections.length > 1
  const isOne = leaders.length === 1
  const ways: [key: string, text: string][] = [
    [
      'as-is',
      isOne
        ? `it ${own ? 'stays as the page has it' : 'goes'}`
        : [added && 'items that Way Bell added go', own && 'the page’s own stay as the page has them'].filter(Boolean).join('; '),
    ],
    // The same for made ones.
    ...(added < leaders.length ? [['out', isOne ? 'it is taken out of its menu' : 'remove all from their menus'] as [string, string]] : []),
    ['top', `${isOne ? 'it leads' : 'they lead'} to the top of the page`],
    ...(section === undefined ? [] : [['section', `${isOne ? 'it leads' : 'they lead'} to another section:`] as [string, string]]),
  ]
  const remove = () => {
    const otherwise: Otherwise = way === 'section' ? { section: section! } : (way as Otherwise)
    asked.set(null)
    const target: ItemTarget | null = way === 'section' ? { kind: 'section', section: section! } : way === 'top' ? { kind: 'top' } : null
    const drop = dropSections(site, page, sections, otherwise)
    const led = target ? plain.map(({ link }): Command => ({ type: 'link/target', page: page.key, at: link.at, target })) : []
    if (run({ ...drop, commands: [...led, ...drop.commands] })) setTimeout(then)
  }
  return (
    <Sheet
      title={many ? `Remove ${sections.length} sections` : `Remove “${sections[0]!.title}”`}
      description={`${leaders.length === 1 ? '1 link leads' : `${leaders.length} links lead`} ${many ? 'to them' : 'there'}: ${names.slice(0, 8).join(', ')}${names.length > 8 ? ` and ${names.length - 8} more` : ''}.`}
    >
      <RadioGroup.Root value={way} onValueChange={setWay} aria-label="Links to it" className="mb-4 flex flex-col gap-1.5">
        {ways.map(([key, text]) => (
          <label key={key} className="flex min-h-7 items-center gap-2">
            <RadioGroup.Item
              value={key}
              // Arrow keys move the focus, and with it the choice.
              onFocus={() => setWay(key)}
              className="flex h-4 w-4 flex-none items-center justify-center rounded-full border border-faint"
            >
              <RadioGroup.Indicator className="h-2 w-2 rounded-full bg-teal" />
            </RadioGroup.Item>
            <span>{text.charAt(0).toUpperCase() + text.slice(1)}</span>
            {key === 'section' && (
              <select
                aria-label="The other section"
                value={section}
                onChange={(e) => {
                  setSection(e.target.value)
                  setWay('section')
                }}
                className="min-h-7 min-w-0 flex-1 rounded-sm border border-hair bg-sheet px-1 text-sm"
              >
                {left.map((s) => (
                  <option key={s.key} value={s.key}>
                    {page.sections.indexOf(s) + 1} {s.title}
                  </option>
                ))}
              </select>
            )}
          </label>
        ))}
      </RadioGroup.Root>
      <div className="flex justify-end gap-2">
        <Dialog.Close asChild>
          <Button>Keep {many ? 'them' : 'it'}</Button>
        </Dialog.Close>
        <Button kind="main" autoFocus onClick={remove}>
          Remove {many ? `${sections.length} sections` : 'it'}
        </Button>
      </div>
    </Sheet>
  )
}
