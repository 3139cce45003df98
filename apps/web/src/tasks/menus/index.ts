import { Arrivals } from '../Arrivals.tsx'
import type { Task } from '../task.ts'
import { ContrastLayer } from './ContrastStrip.tsx'
import { MenusTask } from './Menus.tsx'
import { Threads } from './Threads.tsx'

export const menus: Task = { key: 'menus', name: 'Menus', View: MenusTask, Layers: [Arrivals, ContrastLayer], Overlay: Threads }
