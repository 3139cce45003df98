/** Tests of the application. Each worker starts one server, which its tests share: each makes a site of its own. */
import { test as base } from '@playwright/test'
import { Server } from './server.ts'

export const test = base.extend<object, { server: Server }>({
  server: [
    // The runner asks for a pattern here.
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const server = await new Server().start()
      await use(server)
      await server.stop()
    },
    { scope: 'worker' },
  ],
})
