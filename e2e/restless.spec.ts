/** Pages that can't be measured, or only for a moment: each is reported, and the rest works. */
import { expect } from '@playwright/test'
import { restlessPage, troubles } from './support/restless.ts'
import { make, measured, openSite, type Server } from './support/server.ts'
import { test } from './support/test.ts'

test.describe('a page that', () => {
  const site = (server: Server, script: string) =>
    make(server, [{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(restlessPage(script)) }])

  for (const [name, script, said] of troubles)
    test(`${name} says so, and keeps no other waiting`, async ({ page: tab, context, server }) => {
      await tab.goto(`${server.address}/site/${await site(server, script)}/p1/sections`)
      const well = await context.newPage()
      await openSite(
        well,
        server,
        await site(server, 'addEventListener("resize", () => { throw Error("no harm") }); alert("a dialog"); print()'),
      )
      await expect(well.getByText(/doesn’t respond|keeps reloading|by itself/)).toHaveCount(0)
      await well.close()
      await tab.bringToFront()
      const findings = tab.getByRole('region', { name: 'Findings' })
      await expect(findings.getByText(said).first()).toBeVisible({ timeout: 240_000 })
      await findings
        .getByRole('button', { name: /finding/ })
        .first()
        .click()
      await findings.getByRole('button', { name: 'Turn its scripts off here' }).click()
      await measured(tab)
      await expect(findings.getByText(said)).toHaveCount(0)
    })
})
