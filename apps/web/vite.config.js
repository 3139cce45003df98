import react from '@vitejs/plugin-react'
import tailwindcss from '@tailwindcss/vite'
import { createRequire } from 'node:module'
import { defineConfig } from 'vite'

const own = (path) => new URL(`src/${path}`, import.meta.url).pathname
const source = (path) => new URL(`../../packages/${path}`, import.meta.url).pathname

// Core and agent are taken from their source, so that the browser gets only what it uses.
export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: {
    alias: [
      { find: /^any-ascii\/tables$/, replacement: createRequire(import.meta.url).resolve('any-ascii') },
      { find: /^any-ascii$/, replacement: own('work/tables.ts') },
      { find: /^@waybell\/agent\/schema$/, replacement: source('agent/src/schema.ts') },
      { find: /^@waybell\/core\/schema$/, replacement: source('core/src/schema.ts') },
      { find: /^@waybell\/core\/survey$/, replacement: source('core/src/survey/index.ts') },
      { find: /^@waybell\/core$/, replacement: source('core/src/index.ts') },
    ],
  },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1500 },
})
