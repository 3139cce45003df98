/** An ID without a character. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-empty', 'warning')
