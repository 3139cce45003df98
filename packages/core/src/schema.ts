/** Schemas of outside input. A separate entry, so that others don't load them. */
export { shapes } from './shape/index.ts'
export { commandSchema, siteSchema } from './site/schema.ts'
export { surveySchema } from './survey/schema.ts'
export { triedSchema } from './walk/schema.ts'
