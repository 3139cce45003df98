/** Forms of menus that are made. Made by scripts/registries.mjs from the files of this folder. */
import { form as bar, type Form as Bar } from './bar.ts'

export const forms = { bar }

/** How a menu that is made looks, and where it stands. */
export type MadeMenuForm = Bar
