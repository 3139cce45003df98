import { defineConfig } from 'vite'

// One self-contained classic script.
export default defineConfig({
  logLevel: 'warn',
  resolve: {
    alias: {
      '@waybell/core/contract': new URL('../core/src/contract/index.ts', import.meta.url).pathname,
      '@waybell/core/survey': new URL('../core/src/survey/index.ts', import.meta.url).pathname,
    },
  },
  build: {
    outDir: 'dist',
    emptyOutDir: false,
    minify: true,
    lib: { entry: 'src/main.ts', formats: ['iife'], name: 'wayBell', fileName: () => 'agent.js' },
  },
})
