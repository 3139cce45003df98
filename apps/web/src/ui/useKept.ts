/** A choice about the view, kept in the browser where it allows that. */
import { useState } from 'react'

const name = (key: string) => `way-bell-${key}`

function kept<T>(key: string, otherwise: T): T {
  try {
    const text = localStorage.getItem(name(key))
    return text === null ? otherwise : (JSON.parse(text) as T)
  } catch {
    return otherwise
  }
}

/** @param key of this choice alone @param otherwise as long as nothing was chosen */
export function useKept<T extends boolean | number | null>(key: string, otherwise: T): [T, (next: T) => void] {
  const [value, setValue] = useState(() => kept(key, otherwise))
  const set = (next: T) => {
    setValue(next)
    try {
      localStorage.setItem(name(key), JSON.stringify(next))
    } catch {
      // Without storage the choice holds until the view is closed.
    }
  }
  return [value, set]
}
