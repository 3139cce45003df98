import type { Task } from '../task.ts'
import { sectionsActions } from './actions.ts'
import { SectionsTask } from './Sections.tsx'

export const sections: Task = {
  key: 'sections',
  name: 'Sections',
  View: SectionsTask,
  bandName: (section) => '#' + section.id,
  actions: sectionsActions,
}
