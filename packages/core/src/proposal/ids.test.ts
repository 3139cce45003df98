import { checkId, defaultRule } from '../naming/index.ts'
import { readPage } from '../page/index.ts'
import { defaultScreens, type Site, type SitePage } from '../site/index.ts'
import { idContext, proposeSetUp } from './index.ts'

const reading = readPage(
  new TextEncoder().encode(
    '<section id="work"><h2>Work</h2></section>\n<section><h2>Team</h2></section><p id="Note">x</p><p id="note-2">y</p>',
  ),
)
const page: SitePage = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
const site: Site = { format: 'way-bell-site', version: 4, name: '', rule: defaultRule, screens: defaultScreens, pages: [page] }
const context = (p: SitePage, n: number) => idContext({ site, page: p, reading, undeclared: new Set(['gtag']) }, p.sections[n]!)
const check = (id: string, p = page, n = 0) => checkId(id, context(p, n))

describe('owners of IDs', () => {
  it('are elements with their line, and sections with their title', () => {
    expect(check('Note')).toMatchObject({ code: 'id-taken', message: expect.stringContaining('The p on line 2') })
    expect(check('team')).toMatchObject({ code: 'id-taken', message: expect.stringContaining('The section “Team”') })
    expect(check('note')).toMatchObject({ code: 'id-case', severity: 'warning' })
    expect(check('gtag')).toMatchObject({ code: 'id-shadow' })
  })
  it('exclude the section itself', () => expect(check('work')).toBeNull())
  it('free an ID when its section gets another, known as a former one', () => {
    const renamed: SitePage = { ...page, sections: page.sections.map((s, i) => (i ? s : { ...s, id: 'projects', former: ['work'] })) }
    expect(check('work', renamed, 1)).toMatchObject({ code: 'former-clash', suggestion: 'work-2' })
    expect(check('work', renamed, 0)).toBeNull()
    expect(check('projects', renamed, 1)).toMatchObject({ code: 'id-taken' })
  })
  it('suggests an ID that no element or section has, in any case', () => expect(check('NOTE')!.suggestion).toBe('note-3'))
})
