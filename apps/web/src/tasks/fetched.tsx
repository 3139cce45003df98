/** Lazily loaded views. */
import { lazy, type ComponentType, type LazyExoticComponent } from 'react'

export interface FetchedView extends LazyExoticComponent<ComponentType> {
  fetch: () => Promise<unknown>
}

/** A view that loads on demand or was preloaded. */
export function fetchedView(load: () => Promise<ComponentType>): FetchedView {
  let view: Promise<{ default: ComponentType }> | undefined
  const fetch = () => (view ??= load().then(asModule, () => asModule(Lost)))
  return Object.assign(lazy(fetch), { fetch })
}

const asModule = (View: ComponentType) => ({ default: View })

const Lost = () => (
  <p role="alert" className="border-l-4 border-brick bg-wash p-3 text-sm">
    This view could not be fetched from Way Bell. See whether it still runs, then load this page again: what you changed is kept.
  </p>
)
