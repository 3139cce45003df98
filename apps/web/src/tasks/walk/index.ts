import { Arrivals } from '../Arrivals.tsx'
import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'

export const walk: Task = {
  key: 'walk',
  name: 'Walk',
  View: fetchedView(() => import('./Walk.tsx').then((m) => m.WalkTask)),
  Layers: [Arrivals],
}
