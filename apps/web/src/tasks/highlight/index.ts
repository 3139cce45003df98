import type { Task } from '../task.ts'
import { Bells } from './Bells.tsx'
import { HighlightTask } from './Highlight.tsx'

export const highlight: Task = { key: 'highlight', name: 'Highlight', View: HighlightTask, Layers: [Bells] }
