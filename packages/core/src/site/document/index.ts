/**
 * The site document: everything a designer decided about a site. Sources and surveys are stored apart from it.
 * A site (`site.ts`) has screens (`screen.ts`) and pages (`page.ts`); a page has sections (`section.ts`), menus with their items
 * (`menu.ts`), links outside menus (`link.ts`) and a header (`header.ts`).
 */
export * from './header.ts'
export * from './link.ts'
export * from './menu.ts'
export * from './page.ts'
export * from './screen.ts'
export * from './section.ts'
export * from './site.ts'
