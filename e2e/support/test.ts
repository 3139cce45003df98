/** Application tests. Each worker starts one server; its tests make sites of their own. */
import { test as base } from '@playwright/test'
import { Server } from './server.ts'

const GROUPS = [
  'Presses',
  'Space at the end',
  'Offset',
  'Header',
  'Motion',
  'Address and history',
  'Skip link',
  'Pictures',
  'Parts laid out late',
]

async function running(use: (server: Server) => Promise<void>): Promise<void> {
  const server = await new Server().start()
  await use(server)
  await server.stop()
}

// The runner asks for patterns.
/* eslint-disable no-empty-pattern */
export const test = base.extend<{ emptyServer: Server }, { server: Server }>({
  /** A returning user: the demo isn't opened, and Travel's settings are open. */
  context: async ({ context }, use) => {
    await context.addInitScript((groups) => {
      if (location.hostname !== '127.0.0.1') return
      for (const name of ['welcomed', ...groups.map((group) => `group-${group}`)])
        if (localStorage.getItem(`way-bell-${name}`) === null) localStorage.setItem(`way-bell-${name}`, 'true')
    }, GROUPS)
    await use(context)
  },
  server: [async ({}, use) => running(use), { scope: 'worker' }],
  /** Without a site. */
  emptyServer: async ({}, use) => running(use),
})
