/** The built script as text, for the core's handover. */
import { readFileSync } from 'node:fs'
import type { LiveScripts } from '@waybell/core'
import { gzipSync } from 'node:zlib'

/** Readable or minified. */
export const SCRIPT_FORMS = ['plain', 'small'] as const
export type ScriptForm = (typeof SCRIPT_FORMS)[number]

interface Built {
  /** By their parts. */
  handed: Record<string, Record<ScriptForm, string>>
  /** Separate scripts after the main one. */
  extras: Record<string, Record<ScriptForm, string>>
  live: LiveScripts
}
const built: Built = JSON.parse(readFileSync(new URL('../dist/scripts.json', import.meta.url), 'utf8'))

/** Both scripts for a live page. */
export const liveScripts = (): LiveScripts => built.live

/** All scripts in one form, by their parts. */
export const scripts = (form: ScriptForm): Record<string, string> =>
  Object.fromEntries(Object.entries(built.handed).map(([parts, texts]) => [parts, texts[form]]))

/** Sizes of a script in each form, in bytes: plain and gzipped. */
export const sizesOf = (parts: readonly string[]): Record<ScriptForm, { bytes: number; packed: number }> => {
  const size = (form: ScriptForm) => {
    const text = scriptIn(form)(parts)
    return { bytes: text.length, packed: gzipSync(text).length }
  }
  return { plain: size('plain'), small: size('small') }
}

/** @returns gives the script with these parts, and in its first comment `why` it corrects arrivals */
export const scriptIn =
  (form: ScriptForm) =>
  (parts: readonly string[], why: string | null = null): string =>
    [
      ...(why ? [`/* Links need this script to arrive, because ${why}. */`] : []),
      built.handed[parts.filter((part) => !built.extras[part]).join(' ')]![form],
      ...parts.flatMap((part) => built.extras[part]?.[form] ?? []),
    ].join('\n')
