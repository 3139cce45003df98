import { fetchedView } from '../fetched.tsx'
import type { Task } from '../task.ts'
import { sectionsActions } from './actions.ts'

export const sections: Task = {
  key: 'sections',
  name: 'Sections',
  View: fetchedView(() => import('./Sections.tsx').then((m) => m.SectionsTask)),
  bandName: (section) => '#' + section.id,
  actions: sectionsActions,
}
