/** An ID that styles and scripts have to escape. */
import { idRule } from '../ids.ts'

export const rule = idRule('id-selector', 'warning')
