/** Links in the live page that lead to other pages of the site open those here; what leads further stays where it is. */
import { pageAt, readAddress, type PageReading, type Site, type SitePage } from '@waybell/core'
import { useCallback, useEffect, useRef } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { toast } from 'sonner'
import type { LiveControl } from '../work/context.ts'

/** @returns what is to be done with the address of a link that was pressed */
export function useLeaving(site: Site, page: SitePage, reading: PageReading): (href: string) => void {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const latest = useRef({ site, page, reading, pathname })
  latest.current = { site, page, reading, pathname }
  return useCallback(
    (href) => {
      const now = latest.current
      const { path, fragment } = readAddress(href, now.page.file, now.reading.base)
      const there = path === null ? undefined : pageAt(now.site.pages, now.page.file, path)
      if (!there) return void toast(`This link leaves the site, for ${href}. The live page stays here.`)
      const to = now.pathname.replace(/[^/]*(\/[^/]*)$/, `${there.key}$1`)
      void navigate(to, { state: fragment ? { follow: `#${fragment}` } : null })
    },
    [navigate],
  )
}

/** Once the page is there that such a link led to, its hash is followed. */
export function useArriving(live: LiveControl, isReady: boolean): void {
  const { state, pathname } = useLocation()
  const navigate = useNavigate()
  const hash = (state as { follow?: string } | null)?.follow
  useEffect(() => {
    if (hash === undefined || !isReady) return
    live.follow(hash)
    void navigate(pathname, { replace: true, state: null })
  }, [hash, isReady, live, navigate, pathname])
}
