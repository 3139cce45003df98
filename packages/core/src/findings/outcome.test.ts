import { aMenu, anItem, aPage, aSection, aSite } from '../site/builder.ts'
import { aTried } from '../walk/builder.ts'
import type { Tried } from '../walk/index.ts'
import { allArrive, outcomeOf, outcomeText } from './outcome.ts'

const page = aPage({ sections: [aSection(1), aSection(2)], menus: [aMenu([anItem(1, 100), anItem(2, 200)])] })
const site = aSite(page)
const first = (over: Partial<Tried> = {}) => aTried({ at: 100, id: 'id-1', label: 'Item 1', scroll: 0, ...over })
const second = (over: Partial<Tried> = {}) => aTried({ at: 200, id: 'id-2', label: 'Item 2', scroll: 900, ...over })
const told = (tried: Record<string, Tried[]>, open: Parameters<typeof outcomeOf>[1] = []) =>
  outcomeText(outcomeOf({ site, page, surveys: {}, tried }, open))

describe('all arrive', () => {
  it('is said when every item was tried and is right, even if a screen doesn’t show all', () => {
    expect(told({ laptop: [first(), second()], phone: [second()] })).toBe('all arrive')
  })

  it('isn’t said while a screen has no tries, or of an item that no screen shows', () => {
    expect(told({ laptop: [first(), second()] })).toBe('2 not tried')
    expect(told({ laptop: [first()], phone: [first()] })).toBe('1 not tried')
  })

  it('isn’t said of a link that was tried under another item’s label', () => {
    expect(told({ laptop: [first(), first({ at: 300, label: 'Item 2' })], phone: [] })).toBe('1 not tried')
  })

  it('counts a link once, on however many screens it’s wrong', () => {
    const wrong = [first({ mark: 'absent' }), second()]
    expect(told({ laptop: wrong, phone: wrong })).toBe('1 not right')
  })

  it('counts a link without target once, tried or not', () => {
    const lost = [first(), second({ target: 'missing' })]
    expect(told({ laptop: lost, phone: lost }, [{ code: 'item-nowhere', where: { at: 200 } }])).toBe('1 leads nowhere')
    expect(told({ laptop: lost, phone: lost }, [{ code: 'item-nowhere', where: { at: 300 } }])).toBe('2 lead nowhere')
  })

  it('isn’t said while a target is a guess', () => {
    const all = [first(), second()]
    const outcome = outcomeOf({ site, page, surveys: {}, tried: { laptop: all, phone: all } }, [
      { code: 'item-likely', where: { at: 100 } },
    ])
    expect([allArrive(outcome), outcomeText(outcome)]).toEqual([false, '1 unconfirmed'])
  })
})
