/** Handed over and brought in again, on every page there is here: nothing is to be set up, and the next handover is the same to the byte. */
import { readFileSync } from 'node:fs'
import { broughtIn, changed, everyPage } from './builder.ts'
import { isFound, type SitePage } from '../site/index.ts'

it.each(everyPage)('%s', (_, file) => {
  const source = new Uint8Array(readFileSync(file))
  const { page, handOver } = broughtIn(source, file)
  for (const as of [page, changed(page)]) {
    const once = handOver(as)
    const again = broughtIn(once.bytes, file)
    const twice = again.handOver(again.page)
    expect(new TextDecoder('latin1').decode(twice.bytes)).toBe(new TextDecoder('latin1').decode(once.bytes))
    const ids = (p: SitePage) => p.sections.map((s) => [s.id, s.former, s.point, s.toTop])
    expect(ids(again.page)).toEqual(ids(as))
    const looks = (p: SitePage) => p.menus.filter(isFound).map((m) => [m.look, m.form.kind === 'found' && m.form.shutBy !== undefined])
    expect(looks(again.page)).toEqual(looks(as))
    const rooms = (p: SitePage) => [p.header?.off, p.header?.onScroll, p.endSpace?.on, p.sections.map((s) => s.adjust)]
    expect(rooms(again.page)).toEqual(rooms(as))
    const motions = (p: SitePage) => [p.travel, p.menus.map((m) => [m.motion, m.items.map((i) => i.motion)])]
    expect(motions(again.page)).toEqual(motions(as))
  }
})
