/** An ID that differs from an earlier one only in case. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-case', 'warning')
