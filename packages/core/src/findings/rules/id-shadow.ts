/** An ID that a page script reads as an undeclared global. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-shadow', 'warning')
