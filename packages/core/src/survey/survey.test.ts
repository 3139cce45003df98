import { aSurvey } from './builder.ts'
import { inScreenOrder, surveyKey, upgradeSurvey } from './index.ts'
import { surveySchema } from './schema.ts'

const conditions = { source: 's', assets: 'a', screen: { width: 390, height: 844, touch: true }, scripts: true, layout: 'l' }

it('has one key for the same conditions, and others otherwise', () => {
  const others = [
    { ...conditions, source: 't' },
    { ...conditions, assets: 'b' },
    { ...conditions, screen: { ...conditions.screen, width: 391 } },
    { ...conditions, screen: { ...conditions.screen, touch: false } },
    { ...conditions, screen: { ...conditions.screen, text: 150 } },
    { ...conditions, scripts: false },
    { ...conditions, layout: 'm' },
  ]
  expect(surveyKey({ ...conditions })).toBe(surveyKey(conditions))
  expect(new Set([conditions, ...others].map(surveyKey)).size).toBe(8)
})

it('is measured again for an earlier format', () => {
  const first = { ...aSurvey(), format: undefined }
  expect([upgradeSurvey(first), upgradeSurvey({ ...aSurvey(), format: 1 }), upgradeSurvey(null)]).toEqual([null, null, null])
  expect(upgradeSurvey(JSON.parse(JSON.stringify(aSurvey())))).toEqual(aSurvey())
})

it('comes in one order', () => {
  const [wide, narrow] = [aSurvey(), aSurvey({ screen: 'phone', width: 390 })]
  expect(inScreenOrder([narrow, wide])).toEqual([wide, narrow])
  expect(inScreenOrder([wide, narrow])).toEqual([wide, narrow])
})

it('is checked by shape', () => {
  const check = (survey: unknown) => surveySchema.validate(survey, { convert: false, presence: 'required' }).error?.message ?? null
  expect(check(aSurvey({ color: 'oklch(0.3 0.1 200)', background: 'color(srgb 1 1 1 / 0.5)' }))).toBeNull()
  expect(check(aSurvey({ color: 'red; } body {' }))).toContain('color')
  expect(check({ ...aSurvey(), maxScroll: NaN })).toContain('maxScroll')
})
