import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'
import { MovableArrivals } from './Movable.tsx'

export const travel: Task = {
  key: 'travel',
  name: 'Travel',
  View: fetchedView(() => import('./Travel.tsx').then((m) => m.TravelTask)),
  Layers: [MovableArrivals],
}
