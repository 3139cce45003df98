/** What a visitor can close in the bars at the viewport's top: an announcement, a notice. */
import { scroller } from '../page/scroller.ts'
import { asIf } from './as-if.ts'
import { reachNow, type Bar } from './bars.ts'

/** Begin what a button says that closes something. */
const CLOSES =
  /^(×|✕|✖|✗|⨯|╳|x$|close|dismiss|hide|schlie(ß|ss)en|ausblenden|fermer|masquer|cerrar|ocultar|chiudi|nascondi|fechar|sluiten|verbergen|stäng|luk|lukk|zamknij|закрыть|скрыть|閉じる|关闭|關閉|닫기|إغلاق)/i

/** So many may stand in an announcement. */
const MOST_LINKS = 2

/** Drawn within the bar: in menus that are folded there are others. */
function isSeenIn(bar: HTMLElement, button: HTMLElement): boolean {
  const [around, box] = [bar.getBoundingClientRect(), button.getBoundingClientRect()]
  return box.width > 0 && box.top >= around.top - 1 && box.bottom <= around.bottom + 1 && box.left >= 0 && box.right <= innerWidth
}

const wordsOf = (el: Element): string => (el.getAttribute('aria-label') ?? el.getAttribute('title') ?? el.textContent ?? '').trim()

/** The bar itself or what in it has no menu; null without one. */
export function closable(bars: readonly Bar[]): HTMLElement | null {
  for (const { el: bar } of bars)
    for (const button of bar.querySelectorAll<HTMLElement>('button, [role="button"], a')) {
      if (!isSeenIn(bar, button) || button.closest('nav') || !CLOSES.test(wordsOf(button))) continue
      let el = button
      while (el !== bar && !el.parentElement!.querySelector('nav, [role="navigation"]')) el = el.parentElement!
      // A search field or a list in the header closes too, and is no bar of its own; and a header is none that is closed.
      if (el.clientWidth >= scroller().clientWidth / 2 && el.clientHeight > 0 && el.querySelectorAll('a[href]').length <= MOST_LINKS)
        return el
    }
  return null
}

/** How far the bars reach without it, in px. By trying it out, all at once, so that nobody sees it. */
export const reachWithout = (closed: HTMLElement | null, bars: readonly Bar[]): number =>
  closed ? asIf([[closed, { display: 'none' }]], () => reachNow(bars)) : reachNow(bars)
