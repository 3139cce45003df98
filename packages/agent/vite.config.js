import { defineConfig } from 'vite'

// One self-contained classic script.
export default defineConfig({
  logLevel: 'warn',
  resolve: { alias: { '@waybell/core/pieces': new URL('../core/src/handover/pieces.ts', import.meta.url).pathname } },
  build: {
    outDir: 'dist',
    emptyOutDir: false,
    minify: true,
    lib: { entry: 'src/main.ts', formats: ['iife'], name: 'wayBell', fileName: () => 'agent.js' },
  },
})
