/** White space in an ID. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-space', 'error')
