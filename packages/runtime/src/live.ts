/** In a live page the work changes under it: put there again, or told so, it looks at what is new, and is not there twice. */
import { read, start } from './script.ts'

const here = document as Document & { wayBell?: boolean }

function begin(): void {
  here.wayBell = true
  start()
  here.addEventListener('waybell', read)
}

if (here.wayBell) here.dispatchEvent(new Event('waybell'))
else if (document.readyState === 'loading') addEventListener('DOMContentLoaded', begin)
else begin()
