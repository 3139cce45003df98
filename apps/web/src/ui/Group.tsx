/** A group of settings, folded to a line with their values. A group with a problem opens by itself; what the user chose holds. */
import { ChevronRight } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { useKept } from './useKept.ts'

interface Props {
  title: string
  /** The settings in a few words. */
  value: string
  isWrong?: boolean
  children: ReactNode
}

export function Group({ title, value, isWrong = false, children }: Props) {
  const [chosen, choose] = useKept<boolean | null>(`group-${title}`, null)
  // A press that ends the problem leaves it open, so that its result stays visible.
  const [wasWrong, setWasWrong] = useState(isWrong)
  if (isWrong && !wasWrong) setWasWrong(true)
  const isOpen = chosen ?? wasWrong
  return (
    <section aria-label={title} className="border-b border-hair" data-group={title}>
      <h2>
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={() => choose(!isOpen)}
          className="flex min-h-8 w-full items-center gap-1.5 text-left text-sm hover:bg-wash"
        >
          <ChevronRight size={14} aria-hidden className={`flex-none text-faint ${isOpen ? 'rotate-90' : ''}`} />
          <span className="font-bold">{title}</span>
          <span className={`min-w-0 flex-1 truncate ${isWrong ? 'text-brick' : 'text-faint'}`} title={value}>
            {value}
          </span>
        </button>
      </h2>
      {isOpen && <div className="pt-0.5 pb-2 pl-5">{children}</div>}
    </section>
  )
}
