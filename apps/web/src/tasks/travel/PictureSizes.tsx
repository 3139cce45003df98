/** Pictures that got sizes; a finding adds them. */
import { Group } from '../../ui/Group.tsx'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'

export function PictureSizes() {
  const { page, run } = useWork()
  const n = page.pictures?.length
  if (!n) return null
  return (
    <Group title="Pictures" value={`sizes of ${n}`}>
      <div className="flex flex-wrap items-center gap-2 text-sm">
        {n === 1 ? '1 picture has its size' : `${n} pictures have their sizes`} in the page, so nothing moves when they load.
        <Button onClick={() => run({ type: 'travel/pictures', page: page.key, pictures: undefined })}>Remove the size{n > 1 && 's'}</Button>
      </div>
    </Group>
  )
}
