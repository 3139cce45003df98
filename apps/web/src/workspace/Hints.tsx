/** Three hints at the first run, until they are closed. */
import { X } from 'lucide-react'
import { Button } from '../ui/index.tsx'
import { useKept } from '../ui/useKept.ts'

const hints = [
  'Left: your work. Middle: the spine, the whole page to scale. Right: the live page.',
  'Press a section anywhere, and the live page goes there.',
  'The bottom edge says what is wrong and whether every link arrives.',
]

export function Hints() {
  const [areOpen, setOpen] = useKept<boolean>('hints', false)
  if (!areOpen) return null
  return (
    <aside aria-label="Hints" className="flex items-start gap-4 border-b border-hair bg-wash px-3 py-2 text-sm">
      <ol className="flex flex-1 flex-wrap gap-x-8 gap-y-1">
        {hints.map((hint, i) => (
          <li key={hint} className="flex max-w-96 gap-2">
            <b className="text-teal">{i + 1}</b>
            {hint}
          </li>
        ))}
      </ol>
      <Button kind="quiet" aria-label="Close the hints" onClick={() => setOpen(false)}>
        <X size={16} aria-hidden />
      </Button>
    </aside>
  )
}
