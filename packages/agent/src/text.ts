/** The built agent as text, for serving or injecting. */
import { readFileSync } from 'node:fs'

export const agentText: string = readFileSync(new URL('../dist/agent.js', import.meta.url), 'utf8')
