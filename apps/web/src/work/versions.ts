/** Other tabs' changes: site versions from the server. */
export interface SiteVersion {
  site: string
  version: number
}

/** Calls `tell` with the site's version, now and after every change. @returns ends that */
export function hearVersions(site: string, tell: (version: number) => void): () => void {
  const hear = (now: SiteVersion) => now.site === site && tell(now.version)
  if (typeof SharedWorker === 'undefined') {
    const stream = new EventSource('/api/versions')
    stream.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as SiteVersion)
    return () => stream.close()
  }
  const { port } = new SharedWorker(new URL('./versions.shared.ts', import.meta.url), { type: 'module', name: 'versions' })
  port.onmessage = ({ data }: MessageEvent<SiteVersion>) => hear(data)
  return () => port.close()
}
