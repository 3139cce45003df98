/** One stream of versions for all tabs. Browsers allow six connections per host; one per tab would leave none for the seventh. */
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
