/** What the page does that keeps it from being measured, or its figures from holding. */
import type { Rule } from '../finding.ts'
import type { MeasuringTrouble } from '../facts.ts'

const said: Record<MeasuringTrouble, string> = {
  silent:
    'The page does not answer, so that it is not measured: a script of it runs without end, or it has left for another address. Figures that are shown are of before, or missing.',
  reloads: 'The page loads itself again and again, so that it is never measured whole.',
  restless:
    'The page changes its height, or scrolls, by itself and without end: its figures are of one moment, and a moment later links stop elsewhere.',
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
            fix:
              site.scripts === false
                ? null
                : { label: 'Work on it without its scripts', command: { type: 'site/scripts', scripts: false } },
          },
        ]
      : [],
}
