/** What keeps the page from being measured, or makes its figures unreliable. */
import type { Rule } from '../finding.ts'
import type { MeasuringTrouble } from '../facts.ts'

const said: Record<MeasuringTrouble, string> = {
  silent: 'The page doesn’t respond: a script runs endlessly, or the page left for another address. Figures shown are old or missing.',
  reloads: 'The page keeps reloading itself, so it can’t be measured completely.',
  restless: 'The page keeps changing its height or scroll position by itself. Links may stop elsewhere a moment later.',
}

export const rule: Rule = {
  severity: 'error',
  task: 'sections',
  always: true,
  inSite: ({ trouble, site }) =>
    trouble
      ? [
          {
            message: said[trouble],
            line: 1,
            column: 1,
            where: {},
            fix: site.scripts === false ? null : { label: 'Turn its scripts off here', command: { type: 'site/scripts', scripts: false } },
          },
        ]
      : [],
}
