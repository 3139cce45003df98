/** The page's colours. */
import type { Survey } from '@waybell/core/survey'

/** The background behind `el`: its own, or the nearest that isn't transparent. */
export function backgroundOf(el: Element | null): string {
  for (let e = el; e; e = e.parentElement) {
    const color = getComputedStyle(e).backgroundColor
    if (!isClear(color)) return color
  }
  return 'rgb(255, 255, 255)'
}

/** In computed values: `rgba(0, 0, 0, 0)`, or a zero alpha after a slash. */
const isClear = (color: string) => /transparent|rgba\(.*, 0\)|\/ 0\)/.test(color)

/** True without an opaque background behind the text. */
export const isTransparent = (el: Element): boolean => {
  const style = getComputedStyle(el)
  return style.backgroundImage === 'none' && /transparent|rgba\(.*, 0(\.\d+)?\)|\/ 0(\.\d+)?\)/.test(style.backgroundColor)
}

export const pageLook = (): Pick<Survey, 'color' | 'background'> => ({
  color: getComputedStyle(document.body).color,
  background: backgroundOf(document.body),
})
