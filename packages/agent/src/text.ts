/** The built agent as text, to be served or put into a page that is measured. */
import { readFileSync } from 'node:fs'

export const agentText: string = readFileSync(new URL('../dist/agent.js', import.meta.url), 'utf8')
