import { Arrivals } from '../Arrivals.tsx'
import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'

export const handover: Task = {
  key: 'handover',
  name: 'Handover',
  View: fetchedView(() => import('./Handover.tsx').then((m) => m.HandoverTask)),
  Layers: [Arrivals],
}
