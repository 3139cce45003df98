import react from '@vitejs/plugin-react'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vite'

// The core is taken from its source, so that the browser gets only what it uses.
export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: {
    alias: {
      '@waybell/agent/schema': new URL('../../packages/agent/src/schema.ts', import.meta.url).pathname,
      '@waybell/core': new URL('../../packages/core/src/index.ts', import.meta.url).pathname,
    },
  },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1500 },
})
