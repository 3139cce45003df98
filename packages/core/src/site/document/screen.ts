/** Screens: the viewports that a site is measured and tried in. */

export interface Screen {
  key: string
  name: string
  /** Viewport size in CSS px. */
  width: number
  height: number
  touch: boolean
  /** Text size in percent of the browser's default; absent for 100. */
  text?: number
}

/** Everything about a screen that affects layout, as text; a page is measured again when it changes. */
export const viewportOf = ({ width, height, touch, text }: Screen): string =>
  `${width}×${height}${touch ? ' touch' : ''}${text ? ` ${text}%` : ''}`

/** A screen's size for people, with its text size when that isn't 100%. */
export const sizeText = ({ width, height, text }: Pick<Screen, 'width' | 'height' | 'text'>): string =>
  `${width}×${height}${text ? `, text ${text}%` : ''}`

/** Screens that decisions can be made for. A style can't detect text size, so screens with larger text follow another one. */
export const plainScreens = (screens: readonly Screen[]): Screen[] => screens.filter((s) => !s.text)

/** The screens of a new site; a removed one can be added again in one press. */
export const defaultScreens: Screen[] = [
  { key: 'laptop', name: 'Laptop', width: 1280, height: 800, touch: false },
  { key: 'phone', name: 'Phone', width: 390, height: 844, touch: true },
  { key: 'tablet', name: 'Tablet', width: 820, height: 1180, touch: true },
  { key: 'desk', name: 'Desk', width: 1920, height: 1080, touch: false },
  { key: 'phone-lying', name: 'Phone, landscape', width: 844, height: 390, touch: true },
]
