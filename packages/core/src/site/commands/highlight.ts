/** Commands on how the current section is marked. */
import { onPage, type KindsOf } from './kind.ts'

export type HighlightCommand = { type: 'highlight/bell'; page: string; bellOffset: number }

export const highlightCommands: KindsOf<HighlightCommand> = {
  'highlight/bell': {
    name: 'Move the bell line',
    payload: (s) => ({ page: s.key, bellOffset: s.px }),
    touches: (c) => ({ writes: [`page/${c.page}/bell`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...page, highlight: { bellOffset: c.bellOffset } },
        inverse: { ...c, bellOffset: page.highlight.bellOffset },
      })),
  },
}
