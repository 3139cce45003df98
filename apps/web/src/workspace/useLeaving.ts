/** Links in the live page to other pages of the site open those here; others stay blocked. */
import { pageAt, readAddress, type PageReading, type Site, type SitePage } from '@waybell/core'
import { useCallback, useEffect, useRef } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { toast } from 'sonner'
import type { LiveControl } from '../work/context.ts'

/** @returns a handler for the address of a pressed link */
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

/** Follows the hash of such a link once its page is there. */
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
