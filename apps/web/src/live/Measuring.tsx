/**
 * The frames that measure the page, separate from visible ones. They are few, because each loads the whole page and goes through its
 * share of the screens; more than one, because measuring is mostly waiting. Idle ones rest at the size of the screen in view, so that an
 * edit's results for it come first.
 */
import type { SitePage } from '@waybell/core'
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Channel } from './channel.ts'
import { ASIDE, frameAddress, SANDBOX } from './frame.ts'
import { sharesOf } from './shares.ts'
import { Surveyor, type MeasuringState, type Surveying, type Tries } from './surveyor.ts'

/** With several frames, the first of these states that one of them has. */
const STATES: readonly MeasuringState[] = ['silent', 'reloads', 'measuring', 'restless', 'done']

interface Props extends Surveying {
  siteKey: string
  file: string
  scripts: boolean
  onFlood: () => void
}

/** Max time before the page counts as silent, in ms. */
const PATIENCE = 15_000

export function Measuring({ screens, onState, onTried, ...rest }: Props) {
  const states = useRef<MeasuringState[]>([])
  const tries = useRef<({ found: Tries; of: SitePage } | undefined)[]>([])
  const held = useRef<ReadonlyMap<string, number>>(new Map())
  const shares = useMemo(() => {
    const now = sharesOf(screens, held.current)
    held.current = new Map(now.flatMap((share, n) => share.map((s) => [s.key, n])))
    // A frame that goes is no longer heard.
    for (const [n, share] of now.entries()) if (!share.length) [states.current[n], tries.current[n]] = ['measuring', undefined]
    return now
  }, [screens])
  const tell = (n: number, state: MeasuringState) => {
    states.current[n] = state
    const now = shares.flatMap((share, i) => (share.length ? (states.current[i] ?? 'measuring') : []))
    onState(STATES.find((s) => now.includes(s))!)
  }
  const tellTried = (n: number, found: Tries, of: SitePage) => {
    tries.current[n] = { found, of }
    const now = shares.flatMap((share, i) => (share.length ? [tries.current[i]] : []))
    // Other screens may have links to try.
    const all = Object.assign({}, ...now.map((t) => t?.found)) as Tries
    const isTried = of.sections.length > 0 || Object.values(all).some((links) => links.length)
    if (isTried && now.every((t) => t?.of === of)) onTried(all, of)
  }
  return shares.map(
    (share, n) =>
      share.length > 0 && (
        <MeasuringFrame
          key={n}
          {...rest}
          screens={share}
          onState={(state) => tell(n, state)}
          onTried={(found, of) => tellTried(n, found, of)}
        />
      ),
  )
}

function MeasuringFrame(props: Props) {
  const { siteKey, file, shown, scripts, edits, of, request, screens, stale } = props
  const isFresh = stale.size === 0
  const frame = useRef<HTMLIFrameElement>(null)
  const [nonce] = useState(() => crypto.randomUUID())
  const latest = useRef(props)
  latest.current = props
  const surveyor = useRef<Surveyor | null>(null)

  useLayoutEffect(() => {
    const channel = new Channel(
      frame.current!,
      nonce,
      (message) => {
        if (message.type === 'ready') surveyor.current?.begin()
      },
      () => latest.current.onFlood(),
    )
    const own = new Surveyor(frame.current!, channel, () => latest.current)
    surveyor.current = own
    const patience = setTimeout(() => own.isReady || own.isStopped || latest.current.onState('silent'), PATIENCE)
    return () => {
      clearTimeout(patience)
      own.stop()
      channel.close()
    }
  }, [nonce, scripts])

  useEffect(() => surveyor.current?.follow(), [edits, of, shown, request, screens, isFresh])

  return (
    <iframe
      ref={frame}
      key={String(scripts)}
      name={nonce}
      title=""
      aria-hidden
      tabIndex={-1}
      inert
      src={frameAddress(siteKey, file, scripts)}
      sandbox={SANDBOX}
      data-measuring
      onLoad={() => surveyor.current?.loaded()}
      style={ASIDE}
      className="absolute border-0 bg-white"
    />
  )
}
