/** A dialog's body. */
import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'

export function Sheet({
  title,
  description,
  wide = false,
  children,
}: {
  title: string
  description: string
  wide?: boolean
  children: ReactNode
}) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-30 bg-black/40" />
      <Dialog.Content
        className={`fixed z-30 top-1/2 left-1/2 max-h-[88vh] ${wide ? 'w-[min(1000px,94vw)]' : 'w-[min(640px,92vw)]'} -translate-x-1/2 -translate-y-1/2 overflow-auto border border-hair bg-sheet p-5`}
      >
        <Dialog.Title className="mb-1 text-lg font-bold">{title}</Dialog.Title>
        <Dialog.Description className="mb-3 text-faint">{description}</Dialog.Description>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  )
}
