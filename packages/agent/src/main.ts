/**
 * The measuring agent: loaded before everything else in the page, it names elements, measures, and applies edits. In a frame it talks
 * over a port; drivers call it by name.
 */
import { closeWays } from './isolation/network.ts'
import { showState } from './edits/shown-state.ts'
import { keepHistory } from './isolation/history.ts'
import { followAsLink, goTo, takeLinks, watchPresses } from './links/follow.ts'
import type { AgentOfWindow } from './driven.ts'
import type { FromAgent, PickedElement, ToAgent } from './messages.ts'
import { patch } from './edits/patch.ts'
import { dataOf, hearFrom, portsOf, postTo, sourceOf, stopHere } from './isolation/originals.ts'
import { Picker } from './pick.ts'
import { emulate } from './page/emulate.ts'
import { boundSpeech } from './isolation/message-limit.ts'
import { position } from './page/scroller.ts'
import { collectStamps, elementAt, positionOf } from './page/stamps.ts'
import { keepStorage } from './isolation/storage.ts'
import { countTasks, pause } from './page/pending.ts'
import { tryLink } from './links/tries.ts'
import { leaveUnpainted } from './page/unpainted.ts'
import { visit } from './links/visit.ts'
import { probe, remeasure } from './survey/index.ts'
import { isRestless } from './survey/restless.ts'

document.currentScript?.remove()
collectStamps()

const host = window as Window & AgentOfWindow

countTasks()
closeWays()
keepStorage()

const nonce = window.name
const application = window.parent
if (window.parent === window) {
  host.wayBellAgent = { probe, isRestless, patch, pause, tryLink }
  watchPresses()
} else {
  // Hidden from the page; kept over a reload, so that the agent can identify itself.
  window.name = ''
  keepHistory()
  addEventListener('pagehide', () => (window.name = nonce))
  addEventListener('message', listen, true)
  stay()
  boundSpeech((to) => to.postMessage({ wayBell: nonce, isLoud: true }, '*'))
  whenReady(() => application.postMessage({ wayBell: nonce }, '*'))
}

/** Keeps the page from navigating its frame; the application's policy stops the rest. */
function stay(): void {
  const navigation = (window as { navigation?: EventTarget }).navigation
  navigation?.addEventListener('navigate', (event) => {
    const { destination } = event as Event & { destination: { url: string; sameDocument: boolean } }
    const isOwn = destination.sameDocument || destination.url.replace(/#.*$/s, '') === location.href.replace(/#.*$/s, '')
    if (!isOwn && event.cancelable) event.preventDefault()
  })
}

function whenReady(then: () => void): void {
  if (document.readyState === 'loading') addEventListener('DOMContentLoaded', then, { once: true })
  else then()
}

/** The first message brings the port; page listeners come later and don't get it. */
function listen(event: MessageEvent): void {
  if (sourceOf(event) !== application || (dataOf(event) as { wayBell?: unknown } | null)?.wayBell !== nonce) return
  stopHere(event)
  const [port] = portsOf(event)
  if (!port) return
  removeEventListener('message', listen, true)
  serve(port)
}

function serve(port: MessagePort): void {
  const say = (message: FromAgent) => postTo(port, message)
  let watched: ReadonlySet<number> = new Set()
  /** The last survey of each screen and size, as text. */
  const told = new Map<string, string>()
  let probing = false
  let picker: Picker | null = null
  let way: PickedElement[] = []
  const picking = {
    over: (next: PickedElement[]) => {
      way = next
      point(way.at(-1)?.at ?? null)
      say({ type: 'picking', way, state: 'over' })
    },
    taken: () => say({ type: 'picking', way, state: 'done' }),
    left: () => say({ type: 'picking', way: [], state: 'left' }),
  }
  const act = async (message: ToAgent): Promise<void> => {
    switch (message.type) {
      case 'probe':
      case 'remeasure': {
        emulate(message.emulated)
        leaveUnpainted()
        probing = true
        const survey = await (message.type === 'probe' ? probe : remeasure)(message.request).finally(() => (probing = false))
        const { screen, width, height } = message.request
        const [on, text] = [`${screen} ${width} ${height}`, JSON.stringify(survey)]
        const isSame = told.get(on) === text
        told.set(on, text)
        const isWild = message.type === 'probe' && (await isRestless())
        say({ type: 'survey', turn: message.turn, survey: isSame ? null : survey, isRestless: isWild })
        return
      }
      case 'patch':
        patch(message.edits)
        say({ type: 'patched', turn: message.turn })
        return
      case 'watch':
        emulate(message.emulated)
        watched = new Set(message.parts)
        return
      case 'scroll':
        await goTo(message.y)
        return
      case 'follow':
        await followAsLink(message.hash)
        return
      case 'visit':
        say({ type: 'visited', turn: message.turn, visit: await visit(message.hash, message.from) })
        return
      case 'try': {
        probing = true
        const tried = await tryLink(message.place, message.isPatient, message.menus).finally(() => (probing = false))
        say({ type: 'tried', turn: message.turn, tried })
        return
      }
      case 'point':
        point(message.at)
        if (message.show && message.at !== null) elementAt(message.at)?.scrollIntoView({ block: 'center', behavior: 'instant' })
        return
      case 'show-state':
        return showState(message.menu, message.declarations)
      case 'pick':
        picker?.stop()
        point(null)
        picker = message.on ? new Picker(picking) : null
        return
      case 'pick-step':
        if (typeof message.to === 'number') picker?.go(message.to)
        else picker?.step(message.to)
    }
  }
  hearFrom(port, (event) => {
    const data = dataOf(event) as ToAgent
    act(data).catch((error: unknown) => say({ type: 'failed', turn: 'turn' in data ? data.turn : 0, message: String(error) }))
  })
  let waiting = false
  addEventListener(
    'scroll',
    () => {
      if (waiting || probing) return
      waiting = true
      requestAnimationFrame(() => {
        waiting = false
        say({ type: 'scrolled', y: position() })
      })
    },
    // In any scroller.
    { passive: true, capture: true },
  )
  let over: number | null = null
  addEventListener('pointermove', ({ target }) => {
    const at = target instanceof Element ? partAround(target, watched) : null
    if (at !== over) say({ type: 'hover', at: (over = at) })
  })
  document.documentElement.addEventListener('pointerleave', () => say({ type: 'hover', at: (over = null) }))
  takeLinks({
    outside: (href) => say({ type: 'outside', href }),
    followed: (hash) => say({ type: 'followed', hash }),
    isBusy: () => picker !== null,
  })
  say({ type: 'ready' })
}

function partAround(el: Element, watched: ReadonlySet<number>): number | null {
  for (let e: Element | null = el; e; e = e.parentElement) {
    const at = positionOf(e)
    if (at !== undefined && watched.has(at)) return at
  }
  return null
}

const pointer = new CSSStyleSheet()
let pointed: Element | null = null

/** Marked by element state, not markup, so that the document stays as handed over. */
function point(at: number | null): void {
  if (!document.adoptedStyleSheets.includes(pointer)) document.adoptedStyleSheets.push(pointer)
  pointed = at === null ? null : (elementAt(at) ?? null)
  if (!pointed) return pointer.replaceSync('')
  const path: string[] = []
  for (let e: Element = pointed; e.parentElement; e = e.parentElement)
    path.unshift(`${CSS.escape(e.localName)}:nth-child(${[...e.parentElement.children].indexOf(e) + 1})`)
  pointer.replaceSync(`html > ${path.join(' > ')} { outline: 3px solid #0f766e !important; outline-offset: -3px; }`)
}
