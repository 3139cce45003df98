/** Documents and commands of earlier versions, brought to the present one. */
import { defaultRule } from '../naming/index.ts'
import type { Command } from './commands.ts'
import type { Section, Site } from './document.ts'

type Old = Record<string, unknown>

const section = (old: Old): Section => ({ point: null, own: null, former: [], depth: 0, ...old }) as unknown as Section
const sections = <T extends { sections: unknown }>(holder: T): T => ({ ...holder, sections: (holder.sections as Old[]).map(section) })

/**
 * A stored site document, as this version reads it. Version 1 had no points, former IDs, depths, and a shorter naming rule.
 * @throws Error for a version that is newer than this program
 */
export function upgradeSite(stored: unknown): Site {
  const old = stored as Old & { version: number; rule: Old; pages: (Old & { sections: unknown })[] }
  if (old.version > 2) throw new Error(`the site was made by a newer Way Bell (version ${old.version} of its document); start that one`)
  if (old.version === 2) return stored as Site
  return { ...old, version: 2, rule: { ...defaultRule, ...old.rule }, pages: old.pages.map(sections) } as unknown as Site
}

/** A command from the change log of a document of version 1. */
export function upgradeCommand(stored: unknown): Command {
  const old = stored as Old & { type: string }
  if (old.type === 'batch') return { ...old, commands: (old.commands as unknown[]).map(upgradeCommand) } as Command
  if (old.type === 'page/set-up') return { ...old, setUp: sections(old.setUp as { sections: unknown }) } as unknown as Command
  if (old.type === 'section/add') return { ...old, section: section(old.section as Old) } as unknown as Command
  if (old.type === 'section/id') return { former: [], ...old } as unknown as Command
  return stored as Command
}
