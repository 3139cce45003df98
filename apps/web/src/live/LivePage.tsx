/**
 * The live page on every screen of the site. Each screen has a frame of its own that stays; the one in view is scaled to fit, the
 * others lie under it, in view of the browser so that their clocks run, but out of the visitor's reach.
 */
import type { FromAgent, PickStep, SurveyRequest } from '@waybell/agent/types'
import type { PageEdit, Screen, Survey, Visit } from '@waybell/core'
import { useEffect, useImperativeHandle, useLayoutEffect, useRef, useState, type Ref } from 'react'
import { Channel } from './channel.ts'

export interface LiveHandle {
  scrollTo: (screen: string, y: number) => void
  follow: (screen: string, hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  point: (screen: string, at: number | null, show?: boolean) => void
  pick: (screen: string, on: boolean) => void
  pickStep: (screen: string, to: PickStep | number) => void
}

interface Props {
  siteKey: string
  file: string
  title: string
  screens: Screen[]
  shown: string
  scripts: boolean
  request: Omit<SurveyRequest, 'screen'>
  /** Null while it is not known what is to be shown. */
  edits: PageEdit[] | null
  onSurvey: (screen: string, survey: Survey) => void
  onMessage: (screen: string, message: FromAgent) => void
  ref: Ref<LiveHandle>
}

export function LivePage({ screens, shown, ref, ...rest }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState({ width: 600, height: 600 })
  const channels = useRef(new Map<string, Channel>())
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setRoom({ width: entry!.contentRect.width, height: entry!.contentRect.height }))
    observer.observe(box.current!)
    return () => observer.disconnect()
  }, [])
  useImperativeHandle(ref, () => ({
    scrollTo: (screen, y) => channels.current.get(screen)?.say({ type: 'scroll', y }),
    follow: (screen, hash) => channels.current.get(screen)?.say({ type: 'follow', hash }),
    point: (screen, at, show = false) => channels.current.get(screen)?.say({ type: 'point', at, show }),
    pick: (screen, on) => channels.current.get(screen)?.say({ type: 'pick', on }),
    pickStep: (screen, to) => channels.current.get(screen)?.say({ type: 'pick-step', to }),
    visit: async (screen, hash, from) => {
      const channel = channels.current.get(screen)
      if (!channel) throw new Error('the live page is not there yet')
      return (await channel.ask('visited', (turn) => ({ type: 'visit', turn, hash, from }))).visit
    },
  }))
  return (
    <div ref={box} className="relative isolate min-h-0 flex-1 overflow-hidden bg-wash">
      {screens.map((screen) => (
        <Frame key={screen.key} screen={screen} isShown={screen.key === shown} room={room} channels={channels.current} {...rest} />
      ))}
    </div>
  )
}

/** Not to be seen, and yet drawn: the browser slows the clock of a frame that is clear, covered, or off the screen. */
const BARELY = 0.004

type FrameProps = Omit<Props, 'screens' | 'shown' | 'ref'> & {
  screen: Screen
  isShown: boolean
  room: { width: number; height: number }
  channels: Map<string, Channel>
}

function Frame({ siteKey, file, title, screen, isShown, scripts, room, request, edits, channels, onSurvey, onMessage }: FrameProps) {
  const frame = useRef<HTMLIFrameElement>(null)
  const [state, setState] = useState<'loading' | 'measuring' | 'ready' | 'silent'>('loading')
  const [nonce] = useState(() => crypto.randomUUID())
  const latest = useRef({ request, onSurvey, onMessage })
  latest.current = { request, onSurvey, onMessage }
  const sent = useRef('')

  useEffect(() => {
    const hear = (message: FromAgent) => {
      latest.current.onMessage(screen.key, message)
      if (message.type === 'ready') void begin()
    }
    const channel = new Channel(frame.current!, nonce, hear)
    channels.set(screen.key, channel)
    const begin = async () => {
      setState('measuring')
      sent.current = ''
      try {
        const { survey } = await channel.ask('survey', (turn) => ({
          type: 'probe',
          turn,
          touch: screen.touch,
          request: { ...latest.current.request, screen: screen.key },
        }))
        latest.current.onSurvey(screen.key, survey)
        setState('ready')
      } catch {
        setState('silent')
      }
    }
    const patience = setTimeout(() => setState((now) => (now === 'loading' ? 'silent' : now)), 15000)
    return () => {
      clearTimeout(patience)
      channel.close()
      channels.delete(screen.key)
    }
  }, [screen, nonce, channels, scripts])

  // The screen in view first; the others follow when the browser has drawn it.
  useEffect(() => {
    if (state !== 'ready' || !edits) return
    const text = JSON.stringify(edits)
    if (text === sent.current) return
    const send = () => {
      sent.current = text
      channels
        .get(screen.key)
        ?.ask('survey', (turn) => ({ type: 'patch', turn, edits, request: { ...latest.current.request, screen: screen.key } }))
        .then(({ survey }) => latest.current.onSurvey(screen.key, survey))
        .catch(() => (sent.current = ''))
    }
    if (isShown) return send()
    const later = setTimeout(send, 60)
    return () => clearTimeout(later)
  }, [edits, state, isShown, screen.key, channels])

  const scale = Math.min(1, room.width / screen.width, room.height / screen.height)
  const left = Math.max(0, (room.width - screen.width * scale) / 2)
  const host = `${siteKey}${scripts ? '' : '--still'}.localhost`
  return (
    <>
      <iframe
        ref={frame}
        key={String(scripts)}
        name={nonce}
        title={`${title}, ${screen.name.toLowerCase()}`}
        src={`http://${host}:${location.port}/${encodeURIComponent(file)}`}
        sandbox="allow-scripts allow-same-origin"
        inert={!isShown}
        data-screen={screen.key}
        data-state={state}
        style={{
          width: screen.width,
          height: screen.height,
          transform: `translateX(${left}px) scale(${scale})`,
          transformOrigin: '0 0',
          opacity: isShown && state === 'ready' ? 1 : BARELY,
          zIndex: isShown ? 1 : 0,
        }}
        className="absolute top-0 left-0 border-0 bg-white"
      />
      {isShown && state !== 'ready' && (
        <p role="status" className="absolute inset-x-0 top-1/3 z-3 px-8 text-center text-faint">
          {state === 'silent'
            ? 'The page did not answer. It may have left for another address; switch its scripts off and look again.'
            : state === 'measuring'
              ? `Measuring the page on the ${screen.name.toLowerCase()} screen…`
              : 'Loading the page…'}
        </p>
      )}
    </>
  )
}
