/** Parts and links that the page's own scripts make: they are not in its source, so that nothing can be written into them. */
import { named } from '../counted.ts'
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inSite: ({ surveys }) => {
    const longest = (of: readonly string[][]) => of.reduce((most, words) => (words.length > most.length ? words : most), [])
    const built = Object.values(surveys).map((s) => s.built)
    const links = longest(built.map((b) => b.links))
    const headings = longest(built.map((b) => b.headings))
    if (!headings.length && links.length < 2) return []
    const what = [
      ...(headings.length ? [named(headings, 'heading', 'headings')] : []),
      ...(links.length ? [named(links, 'link', 'links')] : []),
    ].join(' and ')
    return [
      {
        message: `Scripts of the page build ${what}, which are not in its file: they get neither IDs nor marks, and no menu leads to them. To work on them, save the page as the browser shows it and bring that in.`,
        line: 1,
        column: 1,
        where: {},
        fix: null,
      },
    ]
  },
}
