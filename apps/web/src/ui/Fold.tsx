/** Rarely used settings: open if set, until closed. */
import { useState, type ReactNode } from 'react'

export function Fold({ title, isSet, children }: { title: string; isSet: boolean; children: ReactNode }) {
  const [isOpen, setOpen] = useState(isSet)
  return (
    <details open={isOpen} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-6 cursor-pointer text-sm">{title}</summary>
      {children}
    </details>
  )
}
