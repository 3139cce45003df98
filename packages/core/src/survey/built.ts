/** Content built by scripts, over all screens. */
import type { Survey } from './survey.ts'

/** For each kind, that of the screen with most of it. */
export function builtOf(surveys: readonly Survey[]): Survey['built'] {
  const most = <K extends keyof Survey['built']>(kind: K): Survey['built'][K] =>
    surveys.reduce<Survey['built'][K]>((best, { built }) => (built[kind].length > best.length ? built[kind] : best), [] as never)
  return { menus: most('menus'), headings: most('headings'), targets: most('targets') }
}
