import { Arrivals } from '../Arrivals.tsx'
import type { Task } from '../task.ts'
import { TravelTask } from './Travel.tsx'

export const travel: Task = { key: 'travel', name: 'Travel', View: TravelTask, Layers: [Arrivals] }
