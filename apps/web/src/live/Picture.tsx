/** A real picture of the viewport's top after a link arrived: the page itself on a screen, with the link followed. */
import type { PageEdit, Screen, Visit } from '@waybell/core'
import { useLayoutEffect, useRef, useState } from 'react'
import { frameAddress, emulatedOn, SANDBOX } from './frame.ts'
import { Patched } from './patched.ts'

interface Props {
  siteKey: string
  file: string
  scripts: boolean
  screen: Screen
  edits: readonly PageEdit[]
  hash: string
  /** Start positions of the ways; the last one is shown. */
  from: readonly number[]
  /** In px of the application. */
  width: number
  height: number
  title: string
  onSeen: (visits: Visit[] | null) => void
}

/** A page that takes longer is reported, in ms. If it answers after that, its answer is shown. */
const PATIENCE = 30_000

export function Picture({ siteKey, file, scripts, screen, edits, hash, from, width, height, title, onSeen }: Props) {
  const frame = useRef<HTMLIFrameElement>(null)
  const [nonce] = useState(() => crypto.randomUUID())
  const latest = useRef({ edits, hash, from, emulated: emulatedOn(screen), onSeen })
  latest.current = { edits, hash, from, emulated: emulatedOn(screen), onSeen }
  useLayoutEffect(() => {
    let isOver = false
    const end = (visits: Visit[] | null) => {
      if (!isOver) latest.current.onSeen(visits)
      isOver = true
    }
    const see = async () => {
      const { edits, hash, from, emulated } = latest.current
      channel.begin()
      channel.say({ type: 'watch', parts: [], emulated })
      // Without the edits it wouldn't show the handover.
      if (!(await channel.patch(edits))) throw new Error('the page doesn’t show the edits')
      const visits: Visit[] = []
      for (const y of from) visits.push((await channel.ask('visited', (turn) => ({ type: 'visit', turn, hash, from: y }))).visit)
      end(visits)
    }
    const channel = new Patched(
      frame.current!,
      nonce,
      (message) => {
        // Starts again when the page reloads.
        if (message.type === 'ready') see().catch(() => channel.isOpen && end(null))
      },
      () => end(null),
    )
    const patience = setTimeout(() => !isOver && latest.current.onSeen(null), PATIENCE)
    return () => {
      isOver = true
      clearTimeout(patience)
      channel.close()
    }
  }, [nonce])
  return (
    <div className="relative overflow-hidden border border-hair bg-white" style={{ width, height }}>
      <iframe
        ref={frame}
        name={nonce}
        title={title}
        inert
        src={frameAddress(siteKey, file, scripts)}
        sandbox={SANDBOX}
        className="absolute top-0 left-0 border-0"
        style={{
          width: screen.width,
          height: screen.height,
          transform: `scale(${width / screen.width})`,
          transformOrigin: '0 0',
        }}
      />
    </div>
  )
}
