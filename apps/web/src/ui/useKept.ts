/** A view setting, stored in the browser if possible. */
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

/** @param key of this setting @param otherwise the default */
export function useKept<T extends boolean | number | null>(key: string, otherwise: T): [T, (next: T) => void] {
  const [value, setValue] = useState(() => kept(key, otherwise))
  const set = (next: T) => {
    setValue(next)
    try {
      localStorage.setItem(name(key), JSON.stringify(next))
    } catch {
      // Without storage the setting lasts while the view is open.
    }
  }
  return [value, set]
}
