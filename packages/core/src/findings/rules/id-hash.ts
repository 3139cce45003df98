/** An ID that starts with #. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-hash', 'error')
