import { Arrivals } from '../Arrivals.tsx'
import type { Task } from '../task.ts'
import { WalkTask } from './Walk.tsx'

export const walk: Task = { key: 'walk', name: 'Walk', View: WalkTask, Layers: [Arrivals] }
