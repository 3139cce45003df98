/** The built script as text, to be passed to the core's handover. */
import { readFileSync } from 'node:fs'

export const runtimeText: string = readFileSync(new URL('../dist/runtime.js', import.meta.url), 'utf8').trim()
