/**
 * For pages with scripts. If one marks items too, its marks are corrected, never two at once; added links are included. Once per frame
 * at most, so that two scripts that react to each other don't block the page.
 */
import { linksIn } from '../elements.ts'

let frame = 0
let observer: MutationObserver | undefined

/** @param answer called after others changed menus, with whether links were added or removed */
export function watchMenus(menus: readonly HTMLElement[], answer: (hasOtherLinks: boolean) => void): void {
  const links = () => menus.flatMap(linksIn).length
  const count = links()
  observer?.disconnect()
  observer = new MutationObserver(() => {
    frame ||= requestAnimationFrame(() => {
      frame = 0
      answer(links() !== count)
    })
  })
  for (const menu of menus) observer.observe(menu, { subtree: true, childList: true, attributeFilter: ['class', 'aria-current'] })
}

let press: Event | undefined
/** The press being followed; none for an address. @param setBehavior sets the motion */
export function watchPress(event: Event | undefined, setBehavior?: (behavior: string) => void): void {
  press = event
  setBehavior?.('')
}
/** True when a page script handles the press itself. */
export const isTaken = (): boolean => !!press?.defaultPrevented

/** True while an element or ancestor moves into place by a transform. */
const isMoving = (el: HTMLElement): boolean =>
  !!document.getAnimations?.().some((animation) => {
    const effect = animation.effect as KeyframeEffect
    return (
      animation.playState === 'running' && effect.target?.contains(el) && /trans(form|late)/.test(JSON.stringify(effect.getKeyframes()))
    )
  })

/**
 * Final position of an element that moves into place, in px from the page's top; null for others.
 * @param inner the scroller, if not the document
 */
export function placeOf(el: HTMLElement, inner: HTMLElement | undefined): number | null {
  if (!isMoving(el)) return null
  let top = -el.clientTop
  for (let e: HTMLElement | null = el; e && e !== inner; e = e.offsetParent as HTMLElement | null) top += e.offsetTop + e.clientTop
  return top
}

/** Ignores our own changes. */
export const overlook = (): void => void observer?.takeRecords()
