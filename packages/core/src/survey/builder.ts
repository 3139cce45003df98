/** Surveys for tests: a page of 3,000 px on a laptop without header and sections, but for what is given. */
import { SURVEY_FORMAT, type Survey, type SurveyHeader, type SurveyPart } from './survey.ts'

export const aSurvey = (over: Partial<Survey> = {}): Survey => ({
  format: SURVEY_FORMAT,
  screen: 'laptop',
  width: 1280,
  height: 800,
  scroller: null,
  pageHeight: 3000,
  maxScroll: 2200,
  parts: [],
  header: null,
  near: [],
  bottom: 0,
  menus: [],
  pictures: [],
  estimates: [],
  padding: 0,
  smooth: false,
  built: { menus: [], headings: [], targets: [] },
  rewrites: false,
  looks: [],
  color: 'rgb(0, 0, 0)',
  background: 'rgb(255, 255, 255)',
  ...over,
})

export const aPart = (over: Partial<SurveyPart> & Pick<SurveyPart, 'at' | 'top' | 'bottom'>): SurveyPart => ({
  left: 0,
  movedTop: over.top,
  margin: 0,
  hasBox: true,
  heading: null,
  shift: 0,
  lead: 0,
  head: 0,
  foot: 0,
  frame: 0,
  background: 'rgb(255, 255, 255)',
  grounds: [],
  ...over,
})

export const aHeader = (over: Partial<SurveyHeader> = {}): SurveyHeader => ({
  at: 1,
  position: 'sticky',
  height: 80,
  rest: 80,
  moved: 80,
  hides: false,
  canStay: false,
  gives: null,
  makesUp: null,
  shut: null,
  transparent: false,
  color: 'rgb(0, 0, 0)',
  ...over,
})
