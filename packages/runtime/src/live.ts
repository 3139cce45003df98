/**
 * In a live page, edits change it: notified, the script reads what is new. Hashes followed by the application count as links. The
 * listeners are on the window, so that they end with the script.
 */
import { FOLLOWS, LETS_GO } from '@waybell/core/contract'
import { expectHash, follow, letGo, read, start } from './script.ts'

function begin(): void {
  start()
  addEventListener('waybell', read, true)
  addEventListener(LETS_GO, letGo, true)
  addEventListener(
    FOLLOWS,
    (event) => {
      const { detail } = event as CustomEvent<string>
      expectHash(detail)
      follow(detail, document.documentElement)
    },
    true,
  )
}

if (document.readyState === 'loading') addEventListener('DOMContentLoaded', begin)
else begin()
