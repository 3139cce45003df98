import { defineConfig } from 'vite'

// What the agent lends a page that asks for it, as text in the agent.
export default defineConfig({
  logLevel: 'warn',
  build: {
    outDir: 'dist',
    emptyOutDir: false,
    minify: true,
    lib: { entry: 'src/isolation/databases.ts', formats: ['iife'], name: 'wayBellDatabases', fileName: () => 'databases.js' },
  },
})
