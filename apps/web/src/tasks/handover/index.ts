import { Arrivals } from '../Arrivals.tsx'
import type { Task } from '../task.ts'
import { HandoverTask } from './Handover.tsx'

export const handover: Task = { key: 'handover', name: 'Handover', View: HandoverTask, Layers: [Arrivals] }
