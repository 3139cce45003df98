/** The built script as text, for the core's handover. */
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

/** Readable or minified. */
export const SCRIPT_FORMS = ['plain', 'small'] as const
export type ScriptForm = (typeof SCRIPT_FORMS)[number]

interface Built {
  /** By their parts. */
  handed: Record<string, Record<ScriptForm, string>>
  /** Separate scripts after the main one. */
  extras: Record<string, Record<ScriptForm, string>>
  live: string
}
const built: Built = JSON.parse(readFileSync(new URL('../dist/scripts.json', import.meta.url), 'utf8'))

/** The live page's script: edits change what is needed, and a running script can't be removed, so it has every part. */
export const liveScript = (): string => built.live

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

export const scriptIn =
  (form: ScriptForm) =>
  (parts: readonly string[]): string =>
    [
      built.handed[parts.filter((part) => !built.extras[part]).join(' ')]![form],
      ...parts.flatMap((part) => built.extras[part]?.[form] ?? []),
    ].join('\n')
