/** An empty ID. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-empty', 'warning')
