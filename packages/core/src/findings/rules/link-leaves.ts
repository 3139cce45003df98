/** Links to this page that open in another tab, reported once. Menu items with a section are written to stay. */
import type { ElementAt, PageLink, PageReading } from '../../page/index.ts'
import type { Command } from '../../site/index.ts'
import { named } from '../counted.ts'
import type { SiteFacts } from '../facts.ts'
import type { Draft, Fix, Rule } from '../finding.ts'

const leaving = ({ links }: PageReading): PageLink[] => links.filter((l) => l.leaves && (l.status === 'ok' || l.status === 'top'))

function told({ baseLeaves }: PageReading, links: readonly PageLink[], fix: Fix | null = null): Draft[] {
  const [first] = links
  if (!first) return []
  const words = links.map((l) => l.label)
  const [lead, open] = links.length === 1 ? ['leads', 'opens'] : ['lead', 'open']
  const why = baseLeaves ? ', because the page’s <base> has a target' : ''
  const message = `${named(words, 'link', 'links')} ${lead} to this page but ${open} in another tab${why}.`
  return [{ message, line: first.line, column: first.column, where: { at: first.at }, fix }]
}

/** Once they have a target, they're written to stay. */
function staying({ page }: SiteFacts, links: readonly PageLink[]): Fix | null {
  const sections = new Map<ElementAt | null, string>(page.sections.map((s) => [s.at, s.key]))
  const commands = links.flatMap((link): Command[] => {
    const section = sections.get(link.target)
    if (section === undefined && link.status !== 'top') return []
    const target = section === undefined ? ({ kind: 'top' } as const) : ({ kind: 'section', section } as const)
    return [{ type: 'link/target', page: page.key, at: link.at, target }]
  })
  const label = commands.length === 1 ? 'Open it on this page' : `Open ${commands.length} links on this page`
  return commands.length ? { label, command: { type: 'batch', label: 'Open links on their page', commands } } : null
}

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inPage: ({ reading }) => told(reading, leaving(reading)),
  whileOpen: (_, facts) => {
    const { page, reading, items } = facts
    const led = new Set<ElementAt>(page.links?.map((l) => l.at))
    const left = leaving(reading).filter(({ at }) => !led.has(at) && (items.get(at)?.item.target.kind ?? 'as-is') === 'as-is')
    const loose = left.filter(({ at }) => !items.has(at))
    return told(reading, left, staying(facts, loose))[0] ?? null
  },
}
