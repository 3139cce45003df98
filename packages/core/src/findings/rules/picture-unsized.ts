/** Pictures without sizes: the content below moves when they load, maybe after a link arrived. */
import { pictureSizes } from '../../survey/index.ts'
import type { Rule } from '../finding.ts'

const some = (n: number) => (n === 1 ? '1 picture' : `${n} pictures`)

export const rule: Rule = {
  severity: 'note',
  task: 'travel',
  inSite: ({ page, surveys, placeOf }) => {
    const { sizes, others } = pictureSizes(Object.values(surveys))
    const left = sizes.filter(({ at }) => !page.pictures?.some((p) => p.at === at))
    const first = left[0]?.at ?? others[0]
    if (first === undefined) return []
    const count = left.length + others.length
    const none = others.length
      ? ` ${left.length ? `${others.length} of them` : count === 1 ? 'It' : 'They'} can’t be given one without moving content.`
      : ''
    return [
      {
        message: `${some(count)} ${count === 1 ? 'has' : 'have'} no size, so content below moves when ${count === 1 ? 'it loads' : 'they load'}.${none}`,
        ...placeOf(first),
        where: { at: first },
        fix: left.length
          ? {
              label: `Give ${some(left.length)} ${left.length === 1 ? 'its size' : 'their sizes'}`,
              command: {
                type: 'travel/pictures',
                page: page.key,
                pictures: [...(page.pictures ?? []), ...left].sort((a, b) => a.at - b.at),
              },
            }
          : null,
      },
    ]
  },
}
