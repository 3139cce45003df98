/** Parts that are laid out late, and their estimated heights. */
import { wrongEstimates } from '@waybell/core'
import { Group } from '../../ui/Group.tsx'
import { Button } from '../../ui/index.tsx'
import { useMeasured, useWork } from '../../work/context.ts'

export function Estimates() {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const n = wrongEstimates(Object.values(surveys)).length
  const { estimates } = page.travel
  if (!n) return null
  const some = n === 1 ? '1 part of the page is' : `${n} parts of the page are`
  return (
    <Group title="Parts laid out late" value={estimates ? `heights of ${n} set` : `heights of ${n} guessed`} isWrong={!estimates}>
      <div className="flex flex-wrap items-center gap-2 text-sm">
        {some} laid out only when near.{' '}
        {estimates ? 'Until then the measured heights are set.' : 'Until then the page guesses their heights.'}
        {estimates ? (
          <Button onClick={() => run({ type: 'travel/estimates', page: page.key })}>Let the page guess</Button>
        ) : (
          <Button onClick={() => run({ type: 'travel/estimates', page: page.key, says: true })}>Set their heights</Button>
        )}
      </div>
    </Group>
  )
}
