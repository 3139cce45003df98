/** What the frames of a page have in common. */
import type { Emulated } from '@waybell/agent/types'

/** Opacity of a frame that nobody sees. Browsers slow down frames that are fully transparent, covered, or off the screen. */
export const BARELY = 0.004

/** Such a frame is drawn as a speck in a corner, over what is looked at, so that nothing of it is seen and nothing covers it. */
export const ASIDE = {
  opacity: BARELY,
  zIndex: 2,
  right: 0,
  bottom: 0,
  transform: 'scale(0.02)',
  transformOrigin: '100% 100%',
  pointerEvents: 'none',
} as const

/** The page of a site on the host that shows nothing else; without its own scripts on another. */
export const frameAddress = (siteKey: string, file: string, scripts: boolean): string =>
  `http://${siteKey}${scripts ? '' : '--still'}.localhost:${location.port}/${file.split('/').map(encodeURIComponent).join('/')}`

/** What of a screen its frame has not by its size. */
export const emulatedOn = ({ touch, text }: { touch: boolean; text?: number | undefined }): Emulated => ({ touch, ...(text && { text }) })

/** A page may run its scripts and use its own origin, which is nobody else's; nothing more. */
export const SANDBOX = 'allow-scripts allow-same-origin'
