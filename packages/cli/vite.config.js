import { defineConfig } from 'vite'

// Few files: finding and reading some hundred modules would take longer than what they do.
export default defineConfig({
  logLevel: 'warn',
  // Its own build: the source reads files beside it.
  resolve: { alias: { 'css-tree': new URL('../../node_modules/css-tree/dist/csstree.esm.js', import.meta.url).pathname } },
  ssr: { noExternal: true, external: ['@waybell/agent', '@waybell/runtime'] },
  build: { ssr: 'src/main.ts', outDir: 'dist', emptyOutDir: true, target: 'node20', minify: false },
})
