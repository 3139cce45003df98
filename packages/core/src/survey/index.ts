/**
 * The survey: measurements of a page on a screen. `survey.ts` has the type, `schema.ts` checks it (for receivers), `upgrade.ts` reads
 * stored ones, `key.ts` identifies what was surveyed, `built.ts` sums up what scripts build, `view.ts` gives the visible height,
 * `steady.ts` a survey with the header's space kept, `builder.ts` makes surveys for tests.
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
