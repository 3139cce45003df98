/**
 * For pages with scripts of their own. One that marks items too has them marked as they are to be: never two at once; links that it adds are taken
 * in. Once in a frame at most, so that two who answer each other keep nobody waiting.
 */
import { linksIn } from '../elements.ts'

let frame = 0
let observer: MutationObserver | undefined

/** @param answer what is done once others have changed something in the menus, and whether they took links away or added some */
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
/**
 * The press that is followed now, none where the address alone is.
 * @param setBehavior says in what motion the page moves from now on
 */
export function watchPress(event: Event | undefined, setBehavior?: (behavior: string) => void): void {
  press = event
  setBehavior?.('')
}
/** A script of the page takes it, and goes where it wants in its own way. */
export const isTaken = (): boolean => !!press?.defaultPrevented

/** True while an element is on its way into its place, by a transform of its own or of what it stands in. */
const isMoving = (el: HTMLElement): boolean =>
  !!document.getAnimations?.().some((animation) => {
    const effect = animation.effect as KeyframeEffect
    return (
      animation.playState === 'running' && effect.target?.contains(el) && /trans(form|late)/.test(JSON.stringify(effect.getKeyframes()))
    )
  })

/**
 * Where an element will be that rises or slides into its place, in px from the page's top; null for one that does not.
 * @param inner in which the page scrolls, if not in the document
 */
export function placeOf(el: HTMLElement, inner: HTMLElement | undefined): number | null {
  if (!isMoving(el)) return null
  let top = -el.clientTop
  for (let e: HTMLElement | null = el; e && e !== inner; e = e.offsetParent as HTMLElement | null) top += e.offsetTop + e.clientTop
  return top
}

/** What was done by ourselves is nothing that the page did. */
export const overlook = (): void => void observer?.takeRecords()
