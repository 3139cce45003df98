import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { Toaster } from 'sonner'
import { SitesView } from './sites/SitesView.tsx'
import './styles.css'

// The list of sites loads at once, the workspace with the first site.
const Workspace = lazy(() => import('./workspace/Workspace.tsx').then((m) => ({ default: m.Workspace })))

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5000, refetchOnWindowFocus: false } } })

const router = createBrowserRouter([
  { path: '/', element: <SitesView /> },
  {
    path: '/site/:site/:page/:task',
    element: (
      <Suspense>
        <Workspace />
      </Suspense>
    ),
  },
  { path: '*', element: <Navigate to="/" replace /> },
])

/** Max wait for the font, in ms. */
const PATIENCE = 1000

// A button that moves when its font loads misses a press.
const font = document.fonts.load(`14px ${getComputedStyle(document.body).fontFamily}`).catch(() => [])
void Promise.race([font, new Promise((done) => setTimeout(done, PATIENCE))]).then(() =>
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
        <Toaster position="bottom-right" toastOptions={{ style: { fontFamily: 'var(--font-sans)' } }} />
      </QueryClientProvider>
    </StrictMode>,
  ),
)
