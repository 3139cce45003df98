/** What a kind of command declares, all in one place. */
import type { Shape, Shapes } from '../../shape/index.ts'
import { elsewhereOf, pageOf, sectionOf, type ItemTarget, type Site, type SitePage } from '../document/index.ts'
import { CommandError } from '../errors.ts'

/** What a command reads and writes, from the outside in: `page/p1/section/s2/title`. A final `*` means everything below. */
export interface Touched {
  writes: string[]
  reads?: string[]
}

export interface Applied<C> {
  site: Site
  /** The inverse command, of the same subject. */
  inverse: C
}

/** @typeParam C the command with its payload; @typeParam All every command of its subject */
export interface CommandKind<C extends { type: string }, All> {
  /** Its name, for undo, redo and the history. */
  name: string
  payload: (s: Shapes) => { [K in Exclude<keyof C, 'type'>]-?: Shape }
  touches: (command: C) => Touched
  /** @throws CommandError when the command doesn't fit the document */
  apply: (site: Site, command: C) => Applied<All>
}

export type KindsOf<All extends { type: string }> = { [T in All['type']]: CommandKind<Extract<All, { type: T }>, All> }

/** What a target reads: its section, here or on another page. */
export function readsOf(page: string, target: ItemTarget): string[] {
  const here = sectionOf(target)
  if (here !== null) return [`page/${page}/section/${here}/target`]
  const there = elsewhereOf(target)
  return there ? [`page/${there.page}/${there.section === null ? 'target' : `section/${there.section}/target`}`] : []
}

/** Changes one page. */
export function onPage<C>(site: Site, key: string, change: (page: SitePage) => { page: SitePage; inverse: C }): Applied<C> {
  const page = pageOf(site, key)
  const { page: next, inverse } = change(page)
  return { site: { ...site, pages: site.pages.map((p) => (p === page ? next : p)) }, inverse }
}

export function find<T extends { key: string }>(list: readonly T[], key: string, what: string): T {
  const found = list.find((x) => x.key === key)
  if (!found) throw new CommandError(`the page has no ${what} “${key}”; it may have been removed`)
  return found
}

/** Keys are unique, also within a batch: otherwise its inverse would find another element. */
export function checkFree(list: readonly { key: string }[], key: string, message: string): void {
  if (list.some((x) => x.key === key)) throw new CommandError(message)
}

export function insert<T>(list: readonly T[], index: number, x: T): T[] {
  const i = Math.max(0, Math.min(index, list.length))
  return [...list.slice(0, i), x, ...list.slice(i)]
}

export const replace = <T>(list: readonly T[], old: T, next: T): T[] => list.map((x) => (x === old ? next : x))
