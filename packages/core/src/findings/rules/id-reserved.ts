/** An ID that takes links to the page's top. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-reserved', 'note')
