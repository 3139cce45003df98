/** Where links lead, and which section an item means. */
export {
  labelScore,
  leadsHome,
  leadsNowhere,
  isOfPage,
  isPlaceholder,
  linksOfMenus,
  matchLinks,
  meansHome,
  namesSite,
  type Meaning,
} from './match.ts'
export { pageAt } from './pages.ts'
export { looseLinks, pointNamed, type LinkKind, type LooseLink } from './kind.ts'
export { coverage, linksInto, unreached, type Coverage, type Leader, type LinkFromPage } from './coverage.ts'
export { ownSkipLink, skipWords } from './skip.ts'
export { likelySection, type Likely } from './meaning.ts'
