/** The live page's interface to the rest of the workspace. */
import type { FromAgent } from '@waybell/agent/types'
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import type { LiveControl, LiveHandle, Picking, View } from './context.ts'
import { ScreenSync, type Screens } from './screen-sync.ts'
import { Signal } from './signal.ts'

export interface Live extends Pick<View, 'pointed' | 'point' | 'scrolls' | 'picking'> {
  handle: RefObject<LiveHandle | null>
  live: LiveControl
  hear: (screen: string, message: FromAgent) => void
}

/** @param flush waits until surveys are stored @param leave called with the address of a link away from the page */
export function useLive(screens: Screens, flush: () => Promise<void>, leave: (href: string) => void): Live {
  const handle = useRef<LiveHandle>(null)
  const latest = useRef(screens)
  latest.current = screens
  const [step] = useState(
    () =>
      new ScreenSync(() => latest.current, {
        scrollTo: (screen, y) => handle.current?.scrollTo(screen, y),
        follow: (screen, hash) => handle.current?.follow(screen, hash),
      }),
  )
  const [scrolls] = useState(() => new Signal<Readonly<Record<string, number>>>({}))
  const [pointed] = useState(() => new Signal<string | null>(null))
  const [picking, setPicking] = useState<Picking | null>(null)

  const live = useMemo(
    (): LiveControl => ({
      scrollTo: (y) => {
        scrolls.set({ ...scrolls.get(), [latest.current.shown]: y })
        handle.current?.scrollTo(latest.current.shown, y)
      },
      follow: (hash) => {
        step.followed(hash)
        handle.current?.follow(latest.current.shown, hash)
      },
      visit: (screen, hash, from) => {
        const end = step.pause()
        return handle.current!.visit(screen, hash, from).finally(end)
      },
      flush,
      show: (at) => handle.current?.point(latest.current.shown, at, at !== null),
      showState: (menu, declarations) => handle.current?.showState(latest.current.shown, menu, declarations),
      pick: (on) => {
        handle.current?.pick(latest.current.shown, on)
        setPicking(on ? { way: [], isTaken: false } : null)
      },
      pickStep: (to) => handle.current?.pickStep(latest.current.shown, to),
    }),
    [flush, scrolls, step],
  )

  const point = useCallback(
    (key: string | null) => {
      pointed.set(key)
      handle.current?.point(latest.current.shown, latest.current.page.sections.find((s) => s.key === key)?.at ?? null)
    },
    [pointed],
  )

  // The hovered section belonged to the previous screen.
  useEffect(() => pointed.set(null), [screens.shown, pointed])

  const hear = useCallback(
    (screen: string, message: FromAgent) => {
      const isShown = screen === latest.current.shown
      if (message.type === 'scrolled') {
        scrolls.set({ ...scrolls.get(), [screen]: message.y })
        if (isShown) step.scrolled(message.y)
      }
      if (message.type === 'followed' && isShown) step.followed(message.hash)
      if (message.type === 'hover' && isShown) pointed.set(latest.current.page.sections.find((s) => s.at === message.at)?.key ?? null)
      if (message.type === 'picking' && isShown)
        setPicking(message.state === 'left' ? null : { way: message.way, isTaken: message.state === 'done' })
      if (message.type === 'outside') leave(message.href)
    },
    [scrolls, pointed, leave, step],
  )
  return { handle, live, point, pointed, scrolls, picking, hear }
}
