/** The tasks, in order of work. */
import { handover } from './handover/index.ts'
import { highlight } from './highlight/index.ts'
import { menus } from './menus/index.ts'
import { sections } from './sections/index.ts'
import type { Task } from './task.ts'
import { travel } from './travel/index.ts'
import { walk } from './walk/index.ts'

export const tasks: readonly Task[] = [sections, menus, travel, highlight, walk, handover]

/** Preloads all tasks. */
export const fetchTasks = (): void => tasks.forEach(({ View }) => void View.fetch())
