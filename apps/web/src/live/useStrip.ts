/** Whether the other screens stand beside the one in view: the designer's choice, kept in the browser. */
import { useState } from 'react'

const KEPT = 'way-bell-in-step'

function kept(): boolean {
  try {
    return localStorage.getItem(KEPT) !== 'off'
  } catch {
    return true
  }
}

export function useStrip(): [boolean, (is: boolean) => void] {
  const [is, setIs] = useState(kept)
  const set = (next: boolean) => {
    setIs(next)
    try {
      localStorage.setItem(KEPT, next ? 'on' : 'off')
    } catch {
      // Nothing may be kept: it holds as long as the view is open.
    }
  }
  return [is, set]
}
