/** A dialog's body. */
import { Dialog } from 'radix-ui'
import { useEffect, useRef, type ReactNode, type RefObject } from 'react'

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
  const content = useRef<HTMLDivElement>(null)
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-30 bg-black/40" />
      <Dialog.Content
        ref={content}
        className={`fixed z-30 top-1/2 left-1/2 max-h-[88vh] ${wide ? 'w-[min(1000px,94vw)]' : 'w-[min(640px,92vw)]'} -translate-x-1/2 -translate-y-1/2 overflow-auto border border-hair bg-sheet p-5`}
      >
        <Dialog.Title className="mb-1 text-lg font-bold">{title}</Dialog.Title>
        <Dialog.Description className="mb-3 text-faint">{description}</Dialog.Description>
        <KeepsFocus of={content} />
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  )
}

/** Takes the focus back from a page in a frame, whose script may take it: Escape would go to the page instead of the dialog. */
function KeepsFocus({ of }: { of: RefObject<HTMLElement | null> }) {
  useEffect(() => {
    const takeBack = () => document.activeElement instanceof HTMLIFrameElement && of.current?.focus()
    // The frame has the focus only after the event.
    const onBlur = () => setTimeout(takeBack)
    addEventListener('blur', onBlur)
    return () => removeEventListener('blur', onBlur)
  }, [of])
  return null
}
