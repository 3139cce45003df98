/** A word of our own, with one line that explains it on hover and focus. */
import { Tooltip } from 'radix-ui'
import type { ReactNode } from 'react'

export function Explained({ by, children }: { by: string; children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={200}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>
          <span tabIndex={0} className="cursor-help underline decoration-hair decoration-dotted underline-offset-4">
            {children}
          </span>
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            side="bottom"
            align="start"
            sideOffset={4}
            className="z-40 max-w-72 rounded-sm border border-hair bg-sheet px-2 py-1 text-sm shadow-md"
          >
            {by}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  )
}
