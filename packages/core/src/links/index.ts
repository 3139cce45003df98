/** Where links lead, and which section a found menu's items mean. */
export { labelScore, matchLinks } from './match.ts'
export { pageAt } from './pages.ts'
