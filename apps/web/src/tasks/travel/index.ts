import type { Task } from '../task.ts'
import { MovableArrivals } from './Movable.tsx'
import { TravelTask } from './Travel.tsx'

export const travel: Task = { key: 'travel', name: 'Travel', View: TravelTask, Layers: [MovableArrivals] }
