/** A character in an ID that a file does not keep. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-character', 'error')
