/** Shared by all frames of a page. */
import type { Emulated } from '@waybell/agent/types'

/** Opacity of hidden frames. Browsers slow down frames that are fully transparent, covered or off-screen. */
export const BARELY = 0.004

/** A hidden frame is a speck in a corner, above everything, so that nothing covers it. */
export const ASIDE = {
  opacity: BARELY,
  zIndex: 2,
  right: 0,
  bottom: 0,
  transform: 'scale(0.02)',
  transformOrigin: '100% 100%',
  pointerEvents: 'none',
} as const

/** Address of a page on its site's host; another host without page scripts. */
export const frameAddress = (siteKey: string, file: string, scripts: boolean): string =>
  `http://${siteKey}${scripts ? '' : '--still'}.localhost:${location.port}/${file.split('/').map(encodeURIComponent).join('/')}`

/** Properties of a screen that a frame's size doesn't give. */
export const emulatedOn = ({ touch, text }: { touch: boolean; text?: number | undefined }): Emulated => ({ touch, ...(text && { text }) })

/** Pages may run scripts and use their own origin, nothing more. */
export const SANDBOX = 'allow-scripts allow-same-origin'
