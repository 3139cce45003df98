/** Shown instead of the workspace: loading, an error, or a stopped page. */
import { Link } from 'react-router'
import { Button } from '../ui/index.tsx'

export const Opening = () => (
  <p role="status" className="p-8 text-faint">
    Opening the site…
  </p>
)

export const Failed = ({ message }: { message: string }) => (
  <main className="p-8">
    <p role="alert" className="mb-3 text-brick">
      {message}
    </p>
    <Link to="/" className="underline">
      All sites
    </Link>
  </main>
)

export const Stopped = ({ onQuiet }: { onQuiet: () => void }) => (
  <div role="alert" className="m-auto max-w-96 border-l-4 border-brick bg-wash p-3 text-sm">
    <p className="mb-2">
      A page script sends endless messages and was stopped. You can work on the page without its scripts; figures are then without them too.
    </p>
    <Button kind="main" onClick={onQuiet}>
      Open it without its scripts
    </Button>
  </div>
)
