/** Kinds of items. Made by scripts/registries.mjs from the files of this folder. */
import { item as asIs, type Target as AsIs } from './as-is.ts'
import { item as group, type Target as Group } from './group.ts'
import { item as outside, type Target as Outside } from './outside.ts'
import { item as page, type Target as Page } from './page.ts'
import { item as section, type Target as Section } from './section.ts'
import { item as top, type Target as Top } from './top.ts'

export const itemKinds = { 'as-is': asIs, group, outside, page, section, top }

/** Where an item leads. */
export type ItemTarget = AsIs | Group | Outside | Page | Section | Top
