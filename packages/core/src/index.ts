/**
 * Way Bell's core: the job in plain TypeScript. No DOM, clock, randomness, input or output, so that server, web, command line and tests
 * can all call it.
 */
export * from './contract/index.ts'
export * from './page/index.ts'
export * from './naming/index.ts'
export * from './colour/index.ts'
export * from './menus/index.ts'
export * from './site/index.ts'
export * from './survey/index.ts'
export * from './links/index.ts'
export * from './arrival/index.ts'
export * from './highlight/index.ts'
export * from './proposal/index.ts'
export * from './revision/index.ts'
export * from './walk/index.ts'
export * from './findings/index.ts'
export * from './handover/index.ts'
