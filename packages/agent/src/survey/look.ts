/** The page's colours. */
import type { Survey } from '@waybell/core/survey'

/** The colour painted behind `el`: its own background or the nearest one behind it that is not clear. */
export function backgroundOf(el: Element | null): string {
  for (let e = el; e; e = e.parentElement) {
    const color = getComputedStyle(e).backgroundColor
    if (!isClear(color)) return color
  }
  return 'rgb(255, 255, 255)'
}

/** As computed values have it: `rgba(0, 0, 0, 0)`, or an alpha of nothing behind a slash. */
const isClear = (color: string) => /transparent|rgba\(.*, 0\)|\/ 0\)/.test(color)

/** True where nothing opaque is painted behind the element's text. */
export const isTransparent = (el: Element): boolean => {
  const style = getComputedStyle(el)
  return style.backgroundImage === 'none' && /transparent|rgba\(.*, 0(\.\d+)?\)|\/ 0(\.\d+)?\)/.test(style.backgroundColor)
}

export const pageLook = (): Pick<Survey, 'color' | 'background'> => ({
  color: getComputedStyle(document.body).color,
  background: backgroundOf(document.body),
})
