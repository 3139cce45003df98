/** Closable parts of bars at the top: announcements, notices. */
import { scroller } from '../page/scroller.ts'
import { asIf } from './as-if.ts'
import { reachNow, type Bar } from './bars.ts'

/** Start of a closing button's label. */
const CLOSES =
  /^(×|✕|✖|✗|⨯|╳|x$|close|dismiss|hide|schlie(ß|ss)en|ausblenden|fermer|masquer|cerrar|ocultar|chiudi|nascondi|fechar|sluiten|verbergen|stäng|luk|lukk|zamknij|закрыть|скрыть|閉じる|关闭|關閉|닫기|إغلاق)/i

/** Max links in an announcement. */
const MOST_LINKS = 2

/** Visible in the bar: folded menus have others. */
function isSeenIn(bar: HTMLElement, button: HTMLElement): boolean {
  const [around, box] = [bar.getBoundingClientRect(), button.getBoundingClientRect()]
  return box.width > 0 && box.top >= around.top - 1 && box.bottom <= around.bottom + 1 && box.left >= 0 && box.right <= innerWidth
}

const wordsOf = (el: Element): string => (el.getAttribute('aria-label') ?? el.getAttribute('title') ?? el.textContent ?? '').trim()

/** The bar, or the part of it without a menu, that can be closed; null for none. */
export function closable(bars: readonly Bar[]): HTMLElement | null {
  for (const { el: bar } of bars)
    for (const button of bar.querySelectorAll<HTMLElement>('button, [role="button"], a')) {
      if (!isSeenIn(bar, button) || button.closest('nav') || !CLOSES.test(wordsOf(button))) continue
      let el = button
      while (el !== bar && !el.parentElement!.querySelector('nav, [role="navigation"]')) el = el.parentElement!
      // Search fields and lists can close too, but aren't bars; nor is a header that closes.
      if (el.clientWidth >= scroller().clientWidth / 2 && el.clientHeight > 0 && el.querySelectorAll('a[href]').length <= MOST_LINKS)
        return el
    }
  return null
}

/** The bars' reach without it, in px. By trying it, all at once, invisibly. */
export const reachWithout = (closed: HTMLElement | null, bars: readonly Bar[]): number =>
  closed ? asIf([[closed, { display: 'none' }]], () => reachNow(bars)) : reachNow(bars)
