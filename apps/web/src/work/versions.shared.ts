/**
 * The one stream of versions that all tabs of a browser share. A browser keeps six connections to a host; a stream for each tab would leave
 * the seventh without any.
 */
import type { SiteVersion } from './versions.ts'

const ports = new Set<MessagePort>()
const latest = new Map<string, SiteVersion>()

const stream = new EventSource('/api/versions')
stream.onmessage = ({ data }: MessageEvent<string>) => {
  const now = JSON.parse(data) as SiteVersion
  latest.set(now.site, now)
  for (const port of ports) port.postMessage(now)
}

addEventListener('connect', (event) => {
  const [port] = (event as MessageEvent).ports
  if (!port) return
  ports.add(port)
  port.addEventListener('close', () => ports.delete(port))
  for (const version of latest.values()) port.postMessage(version)
})
