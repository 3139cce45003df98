/** In a live page the work changes under it: put there again, or told so, it looks at what is new, and is not there twice. What the application follows travels as a link does. */
import { FOLLOWS, LETS_GO } from '@waybell/core/contract'
import { expectHash, follow, letGo, read, start } from './script.ts'

const here = document as Document & { wayBell?: boolean }

function begin(): void {
  here.wayBell = true
  start()
  here.addEventListener('waybell', read)
  here.addEventListener(LETS_GO, letGo)
  here.addEventListener(FOLLOWS, (event) => {
    const { detail } = event as CustomEvent<string>
    expectHash(detail)
    follow(detail, document.documentElement)
  })
}

if (here.wayBell) here.dispatchEvent(new Event('waybell'))
else if (document.readyState === 'loading') addEventListener('DOMContentLoaded', begin)
else begin()
