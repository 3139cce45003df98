/** What the form of a made menu says, for whichever it is. */
import type { MadeMenuForm } from '../site/index.ts'
import type { MadeForm } from './forms/form.ts'
import { forms } from './forms/index.ts'

export const formOf = ({ kind }: MadeMenuForm): MadeForm<MadeMenuForm> => forms[kind] as MadeForm<MadeMenuForm>
