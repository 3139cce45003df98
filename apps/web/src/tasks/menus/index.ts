import { Arrivals } from '../Arrivals.tsx'
import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'
import { ContrastLayer } from './ContrastStrip.tsx'
import { Threads } from './Threads.tsx'

export const menus: Task = {
  key: 'menus',
  name: 'Menus',
  View: fetchedView(() => import('./Menus.tsx').then((m) => m.MenusTask)),
  Layers: [Arrivals, ContrastLayer],
  Overlay: Threads,
}
