import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'
import { Bells } from './Bells.tsx'

export const highlight: Task = {
  key: 'highlight',
  name: 'Highlight',
  View: fetchedView(() => import('./Highlight.tsx').then((m) => m.HighlightTask)),
  Layers: [Bells],
}
