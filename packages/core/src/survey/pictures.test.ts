import { aSurvey } from './builder.ts'
import { pictureSizes, type SurveyPicture } from './index.ts'

const on = (...pictures: SurveyPicture[]) => aSurvey({ pictures })
const picture = (at: number, over: Partial<SurveyPicture> = {}): SurveyPicture => ({ at, width: 300, height: 200, fits: true, ...over })

it.each([
  ['none', [], [], []],
  ['one, as on all screens', [on(picture(5)), on(picture(5))], [5], []],
  ['in page order, also where a screen does not show one', [on(picture(9)), on(picture(9), picture(5))], [5, 9], []],
  ['not where something moves on one', [on(picture(5)), on(picture(5, { fits: false })), on(picture(5))], [], [5]],
  ['nor where the file is another', [on(picture(5)), on(picture(5, { width: 150, height: 100 })), on(picture(5))], [], [5]],
])('sizes of pictures: %s', (_, surveys, sizes, others) => {
  const seen = pictureSizes(surveys)
  expect(seen.sizes).toEqual(sizes.map((at) => ({ at, width: 300, height: 200 })))
  expect(seen.others).toEqual(others)
})
