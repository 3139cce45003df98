/**
 * In a live page, edits change it: added again or notified, the script reads what is new, without running twice. Hashes followed by the
 * application count as links.
 */
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
