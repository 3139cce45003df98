/** The shape of a survey. Pages aren't trusted, so neither are their measurements: lengths have limits, and colours are only colours. */
import { shapes as s, type Shape } from '../shape/index.ts'
import { markStyles } from '../contract/index.ts'
import {
  SURVEY_FORMAT,
  type BuiltMenu,
  type BuiltTarget,
  type PageMark,
  type Survey,
  type SurveyEstimate,
  type SurveyHeader,
  type SurveyMenu,
  type SurveyPart,
  type SurveyPicture,
} from './survey.ts'

const shapeOf = <T>(keys: { [K in keyof Required<T>]: Shape }) => s.object(keys)

const part = shapeOf<SurveyPart>({
  at: s.at,
  top: s.length,
  bottom: s.length,
  left: s.length,
  movedTop: s.length,
  margin: s.length,
  hasBox: s.is,
  heading: s.object({ top: s.length, bottom: s.length }).allow(null),
  shift: s.length,
  lead: s.length,
  sticks: s.is,
  head: s.length,
  foot: s.length,
  frame: s.length,
  background: s.colour,
  grounds: s.array(s.colour, 12),
})

const header = shapeOf<SurveyHeader>({
  at: s.at.allow(null),
  others: s.array(s.at, 20),
  position: s.oneOf('static', 'absolute', 'sticky', 'fixed'),
  height: s.length,
  rest: s.length,
  moved: s.length,
  hides: s.is,
  canStay: s.is,
  isOver: s.is,
  gives: s
    .object({
      at: s.at,
      top: s.length,
      bottom: s.length,
      margin: s.object({ side: s.oneOf('top', 'bottom'), own: s.length }).allow(null),
    })
    .allow(null),
  makesUp: s.length.allow(null),
  shut: s.object({ rest: s.length, moved: s.length }).allow(null),
  transition: s.transition,
  transparent: s.is,
  color: s.colour,
})

const menu = shapeOf<SurveyMenu>({
  at: s.at,
  isDrawn: s.is,
  shows: s.array(s.oneOf(...markStyles), markStyles.length),
  ink: s.colour,
  grounds: s.array(s.colour, 20).allow(null),
  stays: s.is,
  slides: s.is,
  pageMark: shapeOf<PageMark>({ name: s.className, on: s.oneOf('link', 'entry'), followsScroll: s.is, isRight: s.is, isSeen: s.is }).allow(
    null,
  ),
})

const picture = shapeOf<SurveyPicture>({ at: s.at, width: s.length, height: s.length, fits: s.is })

const estimate = shapeOf<SurveyEstimate>({ at: s.at, height: s.length, said: s.length })

const builtMenu = shapeOf<BuiltMenu>({
  at: s.at.allow(null),
  links: s.array(s.object({ label: s.text, href: s.text, target: s.at.allow(null), arrives: s.is }), 50),
})

const builtTarget = shapeOf<BuiltTarget>({ id: s.text, top: s.length, bottom: s.length, movedTop: s.length })

export const surveySchema = shapeOf<Survey>({
  format: s.oneOf(SURVEY_FORMAT),
  screen: s.text,
  width: s.length,
  height: s.length,
  scroller: s.object({ at: s.at.allow(null), height: s.length }).allow(null),
  pageHeight: s.length,
  ownHeight: s.length,
  maxScroll: s.length,
  parts: s.array(part, 20000),
  header: header.allow(null),
  near: s.array(s.object({ at: s.at, cover: s.length }), 50),
  bottom: s.length,
  menus: s.array(menu, 50),
  pictures: s.array(picture, 500),
  estimates: s.array(estimate, 2000),
  padding: s.length,
  smooth: s.is,
  built: s.object({ menus: s.array(builtMenu, 10), headings: s.array(s.text, 50), targets: s.array(builtTarget, 50) }),
  rewrites: s.is,
  isHeld: s.is,
  looks: s.array(s.object({ at: s.at, level: s.count(1, 6) }), 500),
  color: s.colour,
  background: s.colour,
})
