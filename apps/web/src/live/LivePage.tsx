/**
 * The live page on every screen. Each screen has a frame that stays; the one in view is scaled to fit. The others stand small beside it,
 * or as invisible specks that browsers still draw, so that their clocks run.
 */
import type { FromAgent } from '@waybell/agent/types'
import type { PageEdit, Screen } from '@waybell/core'
import { useEffect, useImperativeHandle, useLayoutEffect, useMemo, useRef, useState, type ReactNode, type Ref } from 'react'
import type { LiveHandle } from '../work/context.ts'
import { Beside } from './Beside.tsx'
import { ASIDE, BARELY, frameAddress, emulatedOn, SANDBOX } from './frame.ts'
import { Patched } from './patched.ts'
import { placesOf, type Place } from './places.ts'

interface Props {
  siteKey: string
  file: string
  title: string
  screens: Screen[]
  shown: string
  /** The other screens are visible. */
  isStrip: boolean
  /** The page is also loaded on the other screens. */
  isEvery: boolean
  onShow: (screen: string) => void
  scripts: boolean
  /** Elements to report when hovered. */
  parts: number[]
  edits: readonly PageEdit[]
  /** Nothing could be measured. */
  isSilent: boolean
  onMessage: (screen: string, message: FromAgent) => void
  /** The page sends too many messages and must be stopped. */
  onFlood: () => void
  /** Behind the visible frames. */
  children?: ReactNode
  ref: Ref<LiveHandle>
}

export function LivePage({ screens, shown, isStrip, isEvery, onShow, ref, children, ...rest }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState({ width: 600, height: 600 })
  const channels = useRef(new Map<string, Patched>())
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setRoom({ width: entry!.contentRect.width, height: entry!.contentRect.height }))
    observer.observe(box.current!)
    return () => observer.disconnect()
  }, [])
  useImperativeHandle(ref, () => ({
    scrollTo: (screen, y) => channels.current.get(screen)?.say({ type: 'scroll', y }),
    follow: (screen, hash) => channels.current.get(screen)?.say({ type: 'follow', hash }),
    showState: (screen, menu, declarations) => channels.current.get(screen)?.say({ type: 'show-state', menu, declarations }),
    point: (screen, at, show = false) => channels.current.get(screen)?.say({ type: 'point', at, show }),
    pick: (screen, on) => channels.current.get(screen)?.say({ type: 'pick', on }),
    pickStep: (screen, to) => channels.current.get(screen)?.say({ type: 'pick-step', to }),
    patch: (screen, edits) => void channels.current.get(screen)?.patch(edits),
    visit: async (screen, hash, from) => {
      const channel = channels.current.get(screen)
      if (!channel) throw new Error('the live page isn’t ready')
      return (await channel.ask('visited', (turn) => ({ type: 'visit', turn, hash, from }))).visit
    },
  }))
  const places = useMemo(() => placesOf(room, screens, shown, isStrip), [room, screens, shown, isStrip])
  // A frame that was in view stays loaded.
  const begun = useRef(new Set<string>())
  for (const { key } of screens) if (isEvery || key === shown) begun.current.add(key)
  return (
    <div ref={box} className="relative isolate min-h-0 flex-1 overflow-hidden bg-wash">
      {screens
        .filter((s) => begun.current.has(s.key))
        .map((screen) => (
          <Frame
            key={screen.key}
            screen={screen}
            isShown={screen.key === shown}
            place={places.get(screen.key) ?? null}
            channels={channels.current}
            {...rest}
          />
        ))}
      {screens.map((screen) => {
        const place = screen.key === shown ? undefined : places.get(screen.key)
        return place && <Beside key={screen.key} screen={screen} place={place} onShow={onShow} />
      })}
      {children}
    </div>
  )
}

type FrameProps = Omit<Props, 'screens' | 'shown' | 'isStrip' | 'isEvery' | 'onShow' | 'ref'> & {
  screen: Screen
  isShown: boolean
  /** Null for an invisible one. */
  place: Place | null
  channels: Map<string, Patched>
}

function Frame({
  siteKey,
  file,
  title,
  screen,
  isShown,
  scripts,
  place,
  parts,
  edits,
  channels,
  isSilent,
  onMessage,
  onFlood,
}: FrameProps) {
  const frame = useRef<HTMLIFrameElement>(null)
  // By value: a reloaded document has equal objects.
  const { key, touch, text } = screen
  const [isReady, setReady] = useState(false)
  const [nonce] = useState(() => crypto.randomUUID())
  const hear = useRef({ onMessage, onFlood })
  hear.current = { onMessage, onFlood }
  useLayoutEffect(() => {
    const channel = new Patched(
      frame.current!,
      nonce,
      (message) => {
        if (message.type === 'ready') {
          channel.begin()
          setReady(true)
        }
        hear.current.onMessage(key, message)
      },
      () => hear.current.onFlood(),
    )
    channels.set(key, channel)
    return () => {
      channel.close()
      channels.delete(key)
      setReady(false)
    }
  }, [key, nonce, channels, scripts])
  useEffect(() => {
    if (isReady) channels.get(key)?.say({ type: 'watch', parts, emulated: emulatedOn({ touch, text }) })
  }, [isReady, parts, key, touch, text, channels])
  // The screen in view first; the others once it's drawn.
  useEffect(() => {
    if (!isReady) return
    const send = () => void channels.get(key)?.patch(edits)
    if (isShown) return send()
    const later = setTimeout(send, 60)
    return () => clearTimeout(later)
  }, [edits, isReady, isShown, key, channels])
  return (
    <>
      <iframe
        ref={frame}
        key={String(scripts)}
        name={nonce}
        title={`${title}, ${screen.name.toLowerCase()}`}
        src={frameAddress(siteKey, file, scripts)}
        sandbox={SANDBOX}
        inert={!isShown}
        data-screen={screen.key}
        data-state={isReady ? 'ready' : isSilent ? 'silent' : 'loading'}
        style={{
          width: screen.width,
          height: screen.height,
          ...(place
            ? {
                top: 0,
                left: 0,
                transform: `translate(${place.left}px, ${place.top}px) scale(${place.scale})`,
                transformOrigin: '0 0',
                opacity: isReady ? 1 : BARELY,
                zIndex: 1,
              }
            : ASIDE),
        }}
        className="absolute border-0 bg-white"
      />
      {isShown && !isReady && (
        <p role="status" className="absolute inset-x-0 top-1/3 z-3 px-8 text-center text-faint">
          {isSilent ? 'The page doesn’t respond or keeps reloading. Turn its scripts off and try again.' : 'Loading the page…'}
        </p>
      )}
    </>
  )
}
