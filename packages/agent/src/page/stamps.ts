/** Elements by source position, from the stamps that server or command line added. */
const STAMP = 'data-wb-at'
const byAt = new Map<number, Element>()
const atOf = new WeakMap<Element, number>()

function take(el: Element): void {
  const stamp = el.getAttribute(STAMP)
  if (stamp === null) return
  el.removeAttribute(STAMP)
  const at = Number(stamp)
  atOf.set(el, at)
  // The parser repeats unclosed formatting elements; the first counts.
  if (!byAt.has(at)) byAt.set(at, el)
}

/** Called once, before the page's first script, so that nothing in the page sees the stamps. */
export function collectStamps(): void {
  const observer = new MutationObserver((records) => {
    for (const record of records)
      for (const node of record.addedNodes)
        if (node instanceof Element) {
          take(node)
          for (const el of node.querySelectorAll(`[${STAMP}]`)) take(el)
        }
  })
  observer.observe(document, { childList: true, subtree: true })
  document.addEventListener(
    'DOMContentLoaded',
    () => {
      observer.disconnect()
      for (const el of document.querySelectorAll(`[${STAMP}]`)) take(el)
    },
    { capture: true, once: true },
  )
}

/** Another element now stands for one of the source. */
export function standIn(at: number, el: Element): void {
  byAt.set(at, el)
  atOf.set(el, at)
}

export const elementAt = (at: number): Element | undefined => byAt.get(at)
export const positionOf = (el: Element): number | undefined => atOf.get(el)
export const everyElement = (): ReadonlyMap<number, Element> => byAt
