/** A character that files don't keep. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-character', 'error')
