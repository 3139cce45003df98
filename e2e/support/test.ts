/** Tests of the application. Each worker starts one server, which its tests share: each makes a site of its own. */
import { test as base } from '@playwright/test'
import { Server } from './server.ts'

async function running(use: (server: Server) => Promise<void>): Promise<void> {
  const server = await new Server().start()
  await use(server)
  await server.stop()
}

// The runner asks for patterns.
/* eslint-disable no-empty-pattern */
export const test = base.extend<{ emptyServer: Server }, { server: Server }>({
  /** Of someone who has been here before: the demo isn't opened by itself. */
  context: async ({ context }, use) => {
    await context.addInitScript(() => location.hostname === '127.0.0.1' && localStorage.setItem('way-bell-welcomed', 'true'))
    await use(context)
  },
  server: [async ({}, use) => running(use), { scope: 'worker' }],
  /** Without a site. */
  emptyServer: async ({}, use) => running(use),
})
