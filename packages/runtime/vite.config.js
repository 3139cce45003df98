import { defineConfig } from 'vite'

// One self-contained classic script; the rule comes from the core's source, so that no build order is needed.
export default defineConfig({
  logLevel: 'warn',
  resolve: {
    alias: {
      '@waybell/core/rule': new URL('../core/src/highlight/rule.ts', import.meta.url).pathname,
      '@waybell/core/contract': new URL('../core/src/contract/index.ts', import.meta.url).pathname,
    },
  },
  build: {
    outDir: 'dist',
    emptyOutDir: false,
    minify: true,
    lib: { entry: 'src/main.ts', formats: ['iife'], name: 'wayBell', fileName: () => 'runtime.js' },
  },
})
