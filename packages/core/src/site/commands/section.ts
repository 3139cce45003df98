/** Commands on sections. */
import type { ElementAt } from '../../page/index.ts'
import { inPageOrder, pageOrder, type Adjust, type Section, type Site } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { checkFree, find, onPage, type Applied, type KindsOf } from './kind.ts'
import { adjustShape, formerShape, sectionShape } from './shapes.ts'

export type SectionCommand =
  | { type: 'section/title'; page: string; section: string; title: string }
  /** `former` are all former IDs afterwards. */
  | { type: 'section/id'; page: string; section: string; id: string; former: string[] }
  | { type: 'section/depth'; page: string; section: string; depth: number }
  /** Moves a point before another element, or changes its shift. */
  | { type: 'section/point'; page: string; section: string; at: ElementAt; shift: number }
  | { type: 'section/to-top'; page: string; section: string; toTop: boolean }
  | { type: 'section/adjust'; page: string; section: string; adjust: Adjust | undefined }
  /** @param block gets the ID instead of the empty target before it */
  | { type: 'section/block'; page: string; section: string; block: ElementAt | undefined }
  | { type: 'section/add'; page: string; section: Section }
  | { type: 'section/drop'; page: string; section: string }

/** Changes properties of a section; `back` holds their previous values, for the inverse. */
function change(
  site: Site,
  at: { page: string; section: string },
  next: (section: Section) => { section: Section; inverse: SectionCommand },
): Applied<SectionCommand> {
  return onPage(site, at.page, (page) => {
    const was = find(page.sections, at.section, 'section')
    const { section, inverse } = next(was)
    const sections = page.sections.map((s) => (s === was ? section : s))
    return { page: { ...page, sections: isInPlace(sections, section) ? sections : inPageOrder(sections) }, inverse }
  })
}

function isInPlace(sections: readonly Section[], section: Section): boolean {
  const i = sections.indexOf(section)
  const [before, after] = [sections[i - 1], sections[i + 1]]
  return (!before || pageOrder(before, section) < 0) && (!after || pageOrder(section, after) < 0)
}

const field = (name: string) => (c: { page: string; section: string }) => ({ writes: [`page/${c.page}/section/${c.section}/${name}`] })

export const sectionCommands: KindsOf<SectionCommand> = {
  'section/title': {
    name: 'Change a title',
    payload: (s) => ({ page: s.key, section: s.key, title: s.text }),
    touches: field('title'),
    apply: (site, c) => change(site, c, (was) => ({ section: { ...was, title: c.title }, inverse: { ...c, title: was.title } })),
  },
  'section/id': {
    name: 'Change an ID',
    payload: (s) => ({ page: s.key, section: s.key, id: s.id, former: formerShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/ids`, ...field('id')(c).writes] }),
    apply: (site, c) =>
      change(site, c, (was) => ({
        section: { ...was, id: c.id, former: c.former },
        inverse: { ...c, id: was.id, former: was.former },
      })),
  },
  'section/depth': {
    name: 'Nest or lift a section',
    payload: (s) => ({ page: s.key, section: s.key, depth: s.depth }),
    touches: field('depth'),
    apply: (site, c) => change(site, c, (was) => ({ section: { ...was, depth: c.depth }, inverse: { ...c, depth: was.depth } })),
  },
  'section/point': {
    name: 'Move a point',
    payload: (s) => ({ page: s.key, section: s.key, at: s.at, shift: s.px }),
    touches: field('point'),
    apply: (site, c) =>
      change(site, c, (was) => {
        if (!was.point) throw new CommandError(`“${was.title}” is an element of the page; only a point can be moved`)
        return { section: { ...was, at: c.at, point: { shift: c.shift } }, inverse: { ...c, at: was.at, shift: was.point.shift } }
      }),
  },
  'section/to-top': {
    name: 'Change where a section arrives',
    payload: (s) => ({ page: s.key, section: s.key, toTop: s.is }),
    touches: field('to-top'),
    apply: (site, c) => change(site, c, (was) => ({ section: { ...was, toTop: c.toTop }, inverse: { ...c, toTop: was.toTop } })),
  },
  'section/adjust': {
    name: 'Change the offset of a section',
    payload: (s) => ({ page: s.key, section: s.key, adjust: adjustShape(s) }),
    touches: field('adjust'),
    apply: (site, c) =>
      change(site, c, ({ adjust, ...rest }) => ({
        section: c.adjust ? { ...rest, adjust: c.adjust } : rest,
        inverse: { ...c, adjust },
      })),
  },
  'section/block': {
    name: 'Move an ID',
    payload: (s) => ({ page: s.key, section: s.key, block: s.optional(s.at) }),
    touches: field('block'),
    apply: (site, c) =>
      change(site, c, ({ block, ...rest }) => ({
        section: c.block === undefined ? rest : { ...rest, block: c.block },
        inverse: { ...c, block },
      })),
  },
  'section/add': {
    name: 'Add a section',
    payload: (s) => ({ page: s.key, section: sectionShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/ids`, `page/${c.page}/section/${c.section.key}/*`] }),
    apply: (site, { page: key, section }) =>
      onPage(site, key, (page) => {
        checkFree(page.sections, section.key, `“${section.title}” is a section already`)
        return {
          page: { ...page, sections: inPageOrder([...page.sections, section]) },
          inverse: { type: 'section/drop', page: key, section: section.key },
        }
      }),
  },
  'section/drop': {
    name: 'Remove a section',
    payload: (s) => ({ page: s.key, section: s.key }),
    touches: (c) => ({ writes: [`page/${c.page}/section/${c.section}/*`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        const section = find(page.sections, c.section, 'section')
        return {
          page: { ...page, sections: page.sections.filter((s) => s !== section) },
          inverse: { type: 'section/add', page: c.page, section },
        }
      }),
  },
}
