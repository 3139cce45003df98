/** An ID that browsers reserve for the page's top. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-reserved', 'note')
