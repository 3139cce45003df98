/** Picks an element: by pointing, or through the tree by keys. */
import type { PickedElement, PickStep } from './messages.ts'
import { noLinkOf, wordsOf } from './edits/made-links.ts'
import { elementAt, positionOf } from './page/stamps.ts'

interface Picking {
  /** Called with the element under the pointer and its ancestors, outermost first. */
  over: (way: PickedElement[]) => void
  taken: () => void
  left: () => void
}

const isKnown = (el: Element): boolean => positionOf(el) !== undefined && el !== document.body
const upTo = (el: Element | null): Element | null => {
  for (let e = el; e; e = e.parentElement) if (isKnown(e)) return e
  return null
}

/** The first known element inside, without descending into known ones. */
function downTo(el: Element): Element | null {
  for (const child of el.children) {
    const found = isKnown(child) ? child : downTo(child)
    if (found) return found
  }
  return null
}

function beside(el: Element, by: 1 | -1): Element | null {
  for (
    let e = by > 0 ? el.nextElementSibling : el.previousElementSibling;
    e;
    e = by > 0 ? e.nextElementSibling : e.previousElementSibling
  ) {
    const found = isKnown(e) ? e : downTo(e)
    if (found) return found
  }
  return null
}

const folded = (text: string | null | undefined, limit: number) => (text ?? '').replace(/\s+/g, ' ').trim().slice(0, limit)

function describe(el: Element): PickedElement {
  const heading = /^H[1-6]$/.test(el.tagName) ? el : el.querySelector('h1, h2, h3, h4, h5, h6')
  const words =
    folded(heading?.textContent, 80) ||
    folded(el.getAttribute('aria-label'), 80) ||
    folded(el.textContent, 200).split(' ').slice(0, 5).join(' ').slice(0, 80) ||
    folded((el.localName === 'img' ? el : el.querySelector('img[alt]'))?.getAttribute('alt'), 80)
  const isFirst = el.id !== '' && document.getElementById(el.id) === el
  return {
    at: positionOf(el)!,
    tag: el.localName,
    id: isFirst ? el.id : null,
    title: words || el.localName,
    heading: (heading && positionOf(heading)) ?? null,
    noLink: null,
    words: '',
  }
}

const MOST_WORDS = 2000

/** Its texts that can be linked. */
const runsIn = (el: Element): string[] => {
  const out: string[] = []
  let length = 0
  for (const { data } of wordsOf(el)) {
    const run = folded(data, MOST_WORDS)
    if (run) out.push(run)
    if ((length += run.length) > MOST_WORDS) break
  }
  return out
}

export class Picker {
  private current: Element | null = null
  private readonly stopped = new AbortController()

  constructor(private readonly told: Picking) {
    const { signal } = this.stopped
    const options = { capture: true, signal }
    addEventListener('pointermove', (e) => this.at(upTo(e.target instanceof Element ? e.target : null)), options)
    // Keeps presses from the page.
    for (const type of ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click', 'dblclick', 'contextmenu'] as const)
      addEventListener(
        type,
        (e) => {
          e.preventDefault()
          e.stopImmediatePropagation()
          if (e.type !== 'click') return
          this.at(upTo(e.target instanceof Element ? e.target : null))
          if (this.current) told.taken()
        },
        options,
      )
    addEventListener(
      'keydown',
      (e) => {
        const step = ({ ArrowUp: 'parent', ArrowDown: 'child', ArrowLeft: 'previous', ArrowRight: 'next' } as const)[e.key]
        if (!step && e.key !== 'Enter' && e.key !== 'Escape') return
        e.preventDefault()
        e.stopImmediatePropagation()
        if (step) this.step(step)
        else if (e.key === 'Enter' && this.current) told.taken()
        else told.left()
      },
      options,
    )
  }

  step(to: PickStep): void {
    const { current } = this
    if (!current) return this.at(downTo(document.body))
    const next = to === 'parent' ? upTo(current.parentElement) : to === 'child' ? downTo(current) : beside(current, to === 'next' ? 1 : -1)
    if (next) this.at(next, true)
  }

  go(at: number): void {
    this.at(elementAt(at) ?? null, true)
  }

  stop(): void {
    this.stopped.abort()
  }

  private at(el: Element | null, show = false): void {
    if (el === this.current) return
    this.current = el
    const way: PickedElement[] = []
    for (let e = el; e; e = upTo(e.parentElement)) way.unshift(describe(e))
    if (el && show) {
      const { top, bottom } = el.getBoundingClientRect()
      if (bottom < 0 || top > innerHeight) el.scrollIntoView({ block: 'center', behavior: 'instant' })
    }
    // Only for the picked element: checking its ancestors is slow on a large page.
    if (el) way[way.length - 1] = { ...way.at(-1)!, noLink: noLinkOf(el), words: runsIn(el).join('\n').slice(0, MOST_WORDS) }
    this.told.over(way.slice(-40))
  }
}
