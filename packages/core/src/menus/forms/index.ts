/** Forms of menus that are made. Made by scripts/registries.mjs from the files of this folder. */
import { form as bar, type Form as Bar } from './bar.ts'
import { form as contents, type Form as Contents } from './contents.ts'
import { form as corner, type Form as Corner } from './corner.ts'
import { form as floating, type Form as Floating } from './floating.ts'
import { form as footer, type Form as Footer } from './footer.ts'
import { form as marks, type Form as Marks } from './marks.ts'
import { form as rail, type Form as Rail } from './rail.ts'
import { form as steps, type Form as Steps } from './steps.ts'

export const forms = { bar, contents, corner, floating, footer, marks, rail, steps }

/** How a menu that is made looks, and where it stands. */
export type MadeMenuForm = Bar | Contents | Corner | Floating | Footer | Marks | Rail | Steps
