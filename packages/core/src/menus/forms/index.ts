/** Forms of menus that are made. Made by scripts/registries.mjs from the files of this folder. */
import { form as bar, type Form as Bar } from './bar.ts'
import { form as contents, type Form as Contents } from './contents.ts'
import { form as floating, type Form as Floating } from './floating.ts'
import { form as footer, type Form as Footer } from './footer.ts'
import { form as marks, type Form as Marks } from './marks.ts'
import { form as rail, type Form as Rail } from './rail.ts'

export const forms = { bar, contents, floating, footer, marks, rail }

/** How a menu that is made looks, and where it stands. */
export type MadeMenuForm = Bar | Contents | Floating | Footer | Marks | Rail
