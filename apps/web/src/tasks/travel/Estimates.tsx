/** What is laid out only when it is near, and whether its height is said until then. */
import { wrongEstimates } from '@waybell/core'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'

export function Estimates() {
  const { page, surveys, run } = useWork()
  const n = wrongEstimates(Object.values(surveys)).length
  const { estimates } = page.travel
  if (!n) return null
  const some = n === 1 ? '1 part of the page is' : `${n} parts of the page are`
  return (
    <section aria-label="Parts laid out late" className="mt-3 flex flex-wrap items-center gap-2 border-l-4 border-teal bg-wash p-2 text-sm">
      {some} laid out only when near.{' '}
      {estimates ? 'Until then the measured heights are set.' : 'Until then the page guesses their heights.'}
      {estimates ? (
        <Button onClick={() => run({ type: 'travel/estimates', page: page.key })}>Let the page guess</Button>
      ) : (
        <Button onClick={() => run({ type: 'travel/estimates', page: page.key, says: true })}>Set their heights</Button>
      )}
    </section>
  )
}
