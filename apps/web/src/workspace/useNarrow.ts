/** True for a window, or text, that leaves no space for the live page beside the work. */
import { useSyncExternalStore } from 'react'

const narrow = matchMedia('(max-width: 900px)')

export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      narrow.addEventListener('change', tell)
      return () => narrow.removeEventListener('change', tell)
    },
    () => narrow.matches,
  )
