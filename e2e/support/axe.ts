import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

/** The view passes axe, after fade-ins. @param where is named in failures */
export async function clean(page: Page, where: string): Promise<void> {
  await page.waitForFunction(() =>
    document.getAnimations().every((a) => a.playState !== 'running' || a.effect?.getComputedTiming().endTime === Infinity),
  )
  const { violations } = await new AxeBuilder({ page }).exclude('iframe').analyze()
  const first = (v: (typeof violations)[number]) =>
    v.nodes
      .slice(0, 3)
      .map((n) => n.target.join(' '))
      .join(', ')
  expect(violations.map((v) => `${where}: ${v.id} ${first(v)}`)).toEqual([])
}
