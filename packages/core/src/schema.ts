/** What is checked where something comes from outside. An entry of its own, since those who do not check need no schemas. */
export { shapes } from './shape/index.ts'
export { commandSchema, siteSchema } from './site/schema.ts'
export { surveySchema } from './survey/schema.ts'
export { triedSchema } from './walk/schema.ts'
