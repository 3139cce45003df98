/** An ID that a script of the page reads as a name which nothing declares. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-shadow', 'warning')
