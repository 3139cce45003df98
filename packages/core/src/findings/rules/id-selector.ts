/** An ID that styles and scripts must escape. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-selector', 'warning')
