/** Style of the page's motion. */
import { isOwnTravel } from '../../arrival/index.ts'
import { MOTION, SCROLLER, type Motion } from '../../contract/index.ts'
import type { SitePage } from '../../site/index.ts'
import type { HandoverInput } from '../input.ts'
import { group, media, rule } from './css.ts'
import { scrolls } from './selectors.ts'

export function motionRules({ page, surveys, screens }: HandoverInput): string[] {
  const single = linkMotionRules(page)
  if (isOwnTravel(page) && !single.length && Object.values(surveys).every((s) => s.smooth === page.travel.smooth)) return []
  // Browsers jump by default.
  const jumps = screens.every(({ key }) => surveys[key]?.smooth === false)
  const still = jumps ? '' : rule(scrolls(page), ['scroll-behavior: auto;'])
  if (!page.travel.smooth) return [...group('Links jump.', [still]), ...single]
  const glide = media('(prefers-reduced-motion: no-preference)', [rule(scrolls(page), ['scroll-behavior: smooth;'])])
  return [...group('Links scroll smoothly, except with reduced motion.', [still, glide]), ...single]
}

/**
 * Motions of single links. Without script, the hovered or focused link is the followed one; Chromium removes the hover before it
 * scrolls. Timed motions need the script.
 */
function linkMotionRules(page: SitePage): string[] {
  const items = page.menus.flatMap((m) => m.items)
  const of = (holders: readonly { motion?: Motion }[], link: (motion: string) => string): string[] => {
    const kinds = new Set(holders.flatMap(({ motion }) => (motion ? [motion === 'jump'] : [])))
    return [...kinds].flatMap((jumps) => {
      // Menus come before their links, which override them.
      const those = jumps ? [`[${MOTION}="jump"]`] : [`[${MOTION}="smooth"]`, `[${MOTION}^="timed"]`]
      const followed = `html:root:has(${those.map(link).join(', ')})`
      const to = rule(page.scroller === undefined ? followed : `${followed},\n${followed} [${SCROLLER}]`, [
        `scroll-behavior: ${jumps ? 'auto' : 'smooth'};`,
      ])
      return jumps ? [to] : [media('(prefers-reduced-motion: no-preference)', [to])]
    })
  }
  return group('Links with their own motion: a followed link is hovered or focused.', [
    ...of(page.menus, (motion) => `${motion} a:is(:hover, :focus)`),
    ...of([...items, ...(page.motions ?? [])], (motion) => `a${motion}:is(:hover, :focus)`),
  ])
}
