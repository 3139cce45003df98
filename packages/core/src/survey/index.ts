/**
 * The survey: what was measured of a page on a screen. `survey.ts` says what that is, `schema.ts` checks it (for those who hear it),
 * `upgrade.ts` reads what was stored before, `key.ts` says what it is a survey of, `built.ts` sums up what scripts build, `view.ts` says how high what is seen of the page is, `steady.ts` what is where a header's place is kept, `builder.ts` makes one for tests.
 */
export {
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
export { surveyKey, type Conditions } from './key.ts'
export { upgradeSurvey } from './upgrade.ts'
export { builtOf } from './built.ts'
export { inScreenOrder } from './order.ts'
export { wrongEstimates } from './estimates.ts'
export { pictureSizes, type PictureSize } from './pictures.ts'
export { viewHeight } from './view.ts'
export { steadied } from './steady.ts'
export { looksOf, surveyRequest } from './request.ts'
