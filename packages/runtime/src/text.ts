/** The built script as text, to be passed to the core's handover. */
import { readFileSync } from 'node:fs'

export type ScriptForm = 'plain' | 'small'

const built: Record<string, Record<ScriptForm, string>> = JSON.parse(readFileSync(new URL('../dist/scripts.json', import.meta.url), 'utf8'))

/** Every script in one form, by the parts that it has. */
export const scripts = (form: ScriptForm): Record<string, string> =>
  Object.fromEntries(Object.entries(built).map(([parts, texts]) => [parts, texts[form]]))

export const scriptIn =
  (form: ScriptForm) =>
  (parts: readonly string[]): string =>
    built[parts.join(' ')]![form]
