import type { Arrival } from '../arrival/index.ts'
import { aMenu, anItem, aPage, aSection } from '../site/builder.ts'
import { judge, walkPlan, type Visit } from './index.ts'

const page = aPage({
  sections: [aSection(1, { toTop: true }), aSection(2), aSection(3, { id: 'a b' })],
  menus: [aMenu([anItem(1), anItem(2)])],
})
const plan = walkPlan(page)

it('tries every section from above and from below', () =>
  expect(plan.map((s) => [s.hash, s.start, s.isLinked])).toEqual([
    ['#id-1', 'above', true],
    ['#id-1', 'below', true],
    ['#id-2', 'above', true],
    ['#id-2', 'below', true],
    ['#a%20b', 'above', false],
    ['#a%20b', 'below', false],
  ]))

const arrival = (land: number) => ({ land }) as Arrival
const visit = (scroll: number, current: string | null): Visit => ({ scroll, top: 0, covered: 0, current })

it.each([
  ['where it was computed, and marked', 2, arrival(900), visit(900.9, '#id-2'), true],
  ['more than a pixel off', 2, arrival(900), visit(901.2, '#id-2'), false],
  ['with another item marked', 2, arrival(900), visit(900, '#id-1'), false],
  ['at the top, whose own item is marked', 0, arrival(0), visit(0, '#'), true],
  ['where no item leads, with any marked', 4, arrival(900), visit(900, '#id-2'), true],
  ['where nothing was computed', 2, null, visit(0, '#id-2'), false],
])('judges a link that stops %s', (_, n, computed, seen, passed) => expect(judge(plan[n]!, computed, seen).passed).toBe(passed))
