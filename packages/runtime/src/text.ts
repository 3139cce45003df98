/** The built script as text, to be passed to the core's handover. */
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

/** To be read, or small. */
export const SCRIPT_FORMS = ['plain', 'small'] as const
export type ScriptForm = (typeof SCRIPT_FORMS)[number]

interface Built {
  /** By the parts that it has. */
  handed: Record<string, Record<ScriptForm, string>>
  /** Those that stand alone behind the rest. */
  extras: Record<string, Record<ScriptForm, string>>
  live: string
}
const built: Built = JSON.parse(readFileSync(new URL('../dist/scripts.json', import.meta.url), 'utf8'))

/** That of a live page: what it uses changes with the work, and a script that runs is not taken back, so it has every part. */
export const liveScript = (): string => built.live

/** Every script in one form, by the parts that it has. */
export const scripts = (form: ScriptForm): Record<string, string> =>
  Object.fromEntries(Object.entries(built.handed).map(([parts, texts]) => [parts, texts[form]]))

/** Of the script with these parts in each form, in bytes: as it stands in the page, and packed as servers send it. */
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
