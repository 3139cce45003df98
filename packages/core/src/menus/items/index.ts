/** Kinds of items. Made by scripts/registries.mjs from the files of this folder. */
import { item as asIs, type Target as AsIs } from './as-is.ts'
import { item as section, type Target as Section } from './section.ts'
import { item as top, type Target as Top } from './top.ts'

export const itemKinds = { 'as-is': asIs, section, top }

/** Where an item leads. */
export type ItemTarget = AsIs | Section | Top
