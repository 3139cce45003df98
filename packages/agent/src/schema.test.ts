import { SURVEY_FORMAT, type Survey } from '@waybell/core/survey'
import { aHeader } from '../../core/src/survey/builder.ts'
import { readMessage } from './schema.ts'

const survey: Survey = {
  format: SURVEY_FORMAT,
  screen: 'laptop',
  width: 1280,
  height: 800,
  scroller: { at: 7, height: 700 },
  pageHeight: 4000,
  ownHeight: 4000,
  maxScroll: 3200,
  parts: [
    {
      at: 5,
      top: 0,
      bottom: 10.5,
      left: -3,
      movedTop: 0,
      margin: 0,
      hasBox: true,
      heading: null,
      shift: 0,
      lead: 0,
      sticks: false,
      head: 0,
      foot: 0,
      frame: 0,
      background: 'rgba(0, 0, 0, 0)',
      grounds: ['rgb(1, 2, 3)'],
    },
  ],
  header: null,
  near: [],
  bottom: 0,
  menus: [
    {
      at: 3,
      isDrawn: true,
      shows: ['line'],
      ink: 'rgb(0, 0, 0)',
      grounds: ['rgb(1, 2, 3)'],
      stays: false,
      slides: false,
      pageMark: { name: 'active', on: 'entry', followsScroll: false, isRight: false, isSeen: true },
    },
  ],
  pictures: [{ at: 9, width: 900, height: 600, fits: true }],
  estimates: [{ at: 5, height: 812.5, said: 300 }],
  padding: 0,
  smooth: false,
  built: { menus: [], headings: ['Said by a script'], targets: [] },
  rewrites: false,
  isHeld: false,
  looks: [{ at: 5, level: 2 }],
  color: 'rgb(0, 0, 0)',
  background: 'oklch(0.5 0.1 20)',
}

it('takes the agent’s messages', () => {
  expect(readMessage({ type: 'ready' })).toEqual({ type: 'ready' })
  const said = { type: 'survey', turn: 1, survey, isRestless: false }
  expect(readMessage(said)).toEqual(said)
  const header = aHeader({ others: [4], transition: 'padding 0.2s cubic-bezier(0.1, -0.5, 1, 1), color 1s steps(4, jump-end) 0.1s' })
  expect(readMessage({ ...said, survey: { ...survey, header } })).not.toBeNull()
  // The same as before.
  expect(readMessage({ ...said, survey: null })).not.toBeNull()
})

it.each([
  ['nothing', null],
  ['text', 'ready'],
  ['an unknown kind', { type: 'eval', code: 'x' }],
  ['a kind by inheritance', { type: 'toString' }],
  ['one too many', { type: 'ready', extra: 1 }],
  ['a length that is none', { type: 'scrolled', y: 'far' }],
  ['no number', { type: 'scrolled', y: NaN }],
  ['beyond all bounds', { type: 'scrolled', y: 1e12 }],
  ['a colour that is style', { type: 'survey', turn: 1, survey: { ...survey, color: 'red; } * { display: none' } }],
  ...['none; } * { display: none', 'all 1s url(http://x.example)', 'all 1s </style>'].map((transition): [string, unknown] => [
    'a transition that is more',
    { type: 'survey', turn: 1, survey: { ...survey, header: aHeader({ transition }) } },
  ]),
  ['an address for a colour', { type: 'survey', turn: 1, survey: { ...survey, background: 'url(http://x.example)' } }],
  [
    'a class that is several',
    {
      type: 'survey',
      turn: 1,
      survey: { ...survey, menus: [{ ...survey.menus[0], pageMark: { ...survey.menus[0]!.pageMark, name: 'a b' } }] },
    },
  ],
])('refuses %s', (_, message) => expect(readMessage(message)).toBeNull())

describe('a tried link', () => {
  const tried = {
    at: 10,
    label: 'Work',
    href: '#work',
    id: 'work',
    target: 'shown',
    leaves: false,
    scroll: 900,
    top: 64,
    coveredBy: null,
    below: { scroll: 900, top: 64, coveredBy: '“#bar”' },
    overlay: '',
    isSideways: false,
    mark: 'shared',
    isTaken: false,
    astray: 0,
    menu: '',
    leftOpen: null,
    sizeProblems: ['tight', 'cut'],
  }
  const message = (over: object) => ({ type: 'tried', turn: 1, tried: { ...tried, ...over } })
  it('is taken', () => expect(readMessage(message({}))).toEqual(message({})))
  it.each([
    { mark: 'lit' },
    { target: 'gone' },
    { sizeProblems: ['huge'] },
    { below: { scroll: 900 } },
    { isLit: true },
    { scroll: undefined },
  ])('is refused with %j', (over) => expect(readMessage(message(over))).toBeNull())
})
