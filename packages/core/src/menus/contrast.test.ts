import { aMenu, anItem, aPage, aSection } from '../site/builder.ts'
import type { HeaderChoice, MadeMenu, MadeMenuForm, MenuLook } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import type { Survey, SurveyMenu } from '../survey/index.ts'
import { contrastsOf, contrastTrip, leastOpacity, lowest, nearestInk } from './index.ts'

/** By the formula of WCAG 2.2, from channels of 0 to 255. */
function ratio(a: number[], b: number[]): number {
  const luminance = (c: number[]) =>
    c
      .map((v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4))
      .reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i]!, 0)
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}
const over = (top: number[], alpha: number, under: number[]) => top.map((v, i) => v * alpha + under[i]! * (1 - alpha))

const page = aPage({ sections: [aSection(1, { title: 'Day' }), aSection(2, { title: 'Night' })] })
const survey = aSurvey({
  color: 'rgb(0, 0, 0)',
  background: 'rgb(255, 255, 255)',
  parts: [
    aPart({ at: 10, top: 0, bottom: 500, background: 'rgba(0, 0, 0, 0)' }),
    aPart({ at: 20, top: 500, bottom: 1000, background: 'rgb(20, 20, 40)' }),
  ],
})
const made = (look: MenuLook, form: MadeMenuForm = { kind: 'bar', place: 'top' }) => aMenu([anItem(1)], { look, form }) as MadeMenu
const state = (menu: MadeMenu, name: string) => contrastsOf(menu, page, [survey]).find((c) => c.state === name)!
const NIGHT = [20, 20, 40]

describe('contrast over the trip', () => {
  it('is the lowest over everything behind the menu, in each state', () => {
    const menu = made({
      ink: '#204060',
      ground: '#ffffff',
      opacity: 40,
      states: { current: { backing: '#ffcc00', opacity: 50 }, rest: { ink: '#102030' } },
    })
    const ground = over([255, 255, 255], 0.4, NIGHT)
    expect(state(menu, 'rest')).toMatchObject({ over: 'Night', screen: survey.screen })
    expect(state(menu, 'rest').ratio).toBeCloseTo(ratio([16, 32, 48], ground), 1)
    expect(state(menu, 'current').ratio).toBeCloseTo(ratio([16, 32, 48], over([255, 204, 0], 0.5, ground)), 1)
    // What stands still stands over the page alone.
    expect(state(made(menu.look!, { kind: 'footer', layout: 'row', edge: 0 }), 'rest').over).toBeNull()
  })

  it('takes the worst of a gradient or picture, and gives the stretches', () => {
    const grounds = ['rgb(250, 250, 250)', 'rgb(20, 20, 40)', 'rgb(120, 120, 120)']
    const seen = { ...survey, parts: [survey.parts[0]!, { ...survey.parts[1]!, background: 'rgb(255, 255, 255)', grounds }] }
    const menu = made({ ink: '#000000', ground: '#ffffff', opacity: 0 })
    expect(contrastTrip(menu, 'rest', page, seen).map(({ over, top, bottom }) => [over, top, bottom])).toEqual([
      [null, 0, 3000],
      ['Day', 0, 500],
      ['Night', 500, 1000],
    ])
    expect(contrastTrip(menu, 'rest', page, seen)[2]!.ratio).toBeCloseTo(ratio([0, 0, 0], NIGHT), 1)
  })

  const onMenu: SurveyMenu = {
    at: 3,
    isDrawn: true,
    shows: [],
    pageMark: null,
    ink: 'rgb(255, 255, 255)',
    grounds: ['rgba(0, 0, 0, 0.5)'],
    stays: true,
    slides: false,
  }

  it('uses a found menu’s own backgrounds, over every section if it stays', () => {
    const found = aMenu([anItem(1, 5)], { form: { kind: 'found', elements: [3] }, look: { states: { current: { ink: '#ff0000' } } } })
    const on = (over: Partial<SurveyMenu>) => ({
      ...survey,
      menus: [{ ...onMenu, ...over }],
    })
    const of = (seen: Survey, name: string) => contrastsOf(found, page, [seen]).find((c) => c.state === name)
    expect(of(on({}), 'rest')!.ratio).toBeCloseTo(ratio([255, 255, 255], [127.5, 127.5, 127.5]), 1)
    expect(of(on({}), 'rest')!.over).not.toBe('Night')
    expect(of(on({}), 'current')!.ratio).toBeCloseTo(
      Math.min(ratio([255, 0, 0], [127.5, 127.5, 127.5]), ratio([255, 0, 0], [10, 10, 20])),
      1,
    )
    expect(of(on({ stays: false }), 'rest')!.over).toBeNull()
    expect(contrastsOf(found, page, [on({ grounds: null })])).toEqual([])
    expect(of(on({}), 'held')).toBeUndefined()
  })

  it('in the header uses its new background, and the page behind it at the top', () => {
    const found = aMenu([anItem(1, 5)], { form: { kind: 'found', elements: [3] } })
    const seen: Survey = {
      ...survey,
      header: aHeader({ at: 2, rest: 60, moved: 60 }),
      menus: [{ ...onMenu, grounds: ['rgb(0, 0, 0)'] }],
    }
    const least = (header: Partial<HeaderChoice>) =>
      contrastsOf(found, { ...page, header: { at: 2, keep: null, backing: null, ...header } }, [seen]).find((c) => c.state === 'rest')!
    expect(least({}).ratio).toBeCloseTo(21, 1)
    expect(least({ backing: 'rgb(119 119 119 / 100%)' }).ratio).toBeCloseTo(ratio([255, 255, 255], [119, 119, 119]), 1)
    // White on the day’s ground is not read; the night further down is never seen without the header’s ground.
    expect(least({ onScroll: { after: 80, clear: true } })).toMatchObject({ over: null })
    expect(least({ onScroll: { after: 80, clear: true } }).ratio).toBeLessThan(1.5)
    expect(least({ onScroll: { after: 80, clear: true, off: [seen.screen] } }).ratio).toBeCloseTo(21, 1)
    expect(least({ onScroll: { after: 80, shadow: true } }).ratio).toBeCloseTo(21, 1)
    // Over a first section that begins under the header nothing else is behind it, as long as that has not gone by.
    const dark = {
      ...seen,
      parts: [
        { ...seen.parts[0]!, background: 'rgb(0, 0, 0)' },
        { ...seen.parts[1]!, background: 'rgb(255, 255, 255)' },
      ],
    }
    const over = (header: Partial<HeaderChoice>) =>
      contrastsOf(found, { ...page, header: { at: 2, keep: null, backing: null, ...header } }, [dark]).find((c) => c.state === 'rest')!
        .ratio
    const under = [{ screen: dark.screen, head: 0, frame: 0 }]
    expect(over({ onScroll: { after: 80, clear: true }, under })).toBeCloseTo(21, 1)
    expect(over({ onScroll: { after: 80, over: true, clear: true }, under })).toBeCloseTo(21, 1)
    expect(over({ onScroll: { after: 480, clear: true }, under })).toBeLessThan(1.5)
    expect(over({ onScroll: { after: 80, clear: true } })).toBeLessThan(1.5)
  })

  it('has a lowest opacity, below which it isn’t readable somewhere', () => {
    const menu = made({ ink: '#000000', ground: '#ffffff', opacity: 10 })
    const least = leastOpacity(menu, page, [survey])!
    expect(ratio([0, 0, 0], over([255, 255, 255], least / 100, NIGHT))).toBeGreaterThanOrEqual(4.5)
    expect(ratio([0, 0, 0], over([255, 255, 255], (least - 1) / 100, NIGHT))).toBeLessThan(4.5)
    // Grey as this is read neither on white nor on what that is laid over.
    expect(leastOpacity(made({ ink: '#808080', ground: '#ffffff' }), page, [survey])).toBeNull()
    expect(leastOpacity(made({ ink: '#000000' }), page, [survey])).toBeNull()
  })

  it('has the closest readable colour, or none', () => {
    const menu = made({ ink: '#909090', ground: '#ffffff', opacity: 100 })
    const ink = nearestInk(menu, 'rest', page, [survey])!
    const channel = parseInt(ink.slice(1, 3), 16)
    expect(ratio([channel, channel, channel], [255, 255, 255])).toBeGreaterThanOrEqual(4.5)
    expect(channel).toBeGreaterThan(100)
    // Read over day and night at once is nothing.
    expect(nearestInk(made({ ink: '#808080', ground: '#ffffff', opacity: 0 }), 'rest', page, [survey])).toBeNull()
  })

  it('leaves out screens without the menu, and disabled items', () => {
    expect(contrastsOf({ ...made({ ink: '#000000' }), shown: { off: [survey.screen] } }, page, [survey])).toEqual([])
    expect(lowest([{ state: 'held', ratio: 1, screen: 'laptop', over: null }])).toBeUndefined()
  })
})
