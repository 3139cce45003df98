/** Builds what is missing or outdated. `node scripts/build.mjs NAME…` builds only those. */
import { transformFile } from '@swc/core'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { build as viteBuild } from 'vite'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const quiet = process.argv.includes('--quiet')
const asked = process.argv.slice(2).filter((a) => !a.startsWith('--'))

/** In dependency order. `from` are source folders. */
const targets = {
  core: { dir: 'packages/core', from: ['packages/core/src'], make: transpile },
  runtime: {
    dir: 'packages/runtime',
    from: ['packages/runtime/src', 'packages/runtime/variants.mjs', 'packages/core/src/highlight', 'packages/core/src/contract'],
    make: scriptVariants,
  },
  agent: {
    dir: 'packages/agent',
    from: ['packages/agent/src', 'packages/core/src/contract', 'packages/core/src/survey'],
    make: bundleAndTranspile,
  },
  driver: { dir: 'packages/driver', from: ['packages/driver/src'], make: transpile },
  cli: { dir: 'packages/cli', from: ['packages/cli/src', 'packages/core/src', 'packages/driver/src'], make: bundle },
  server: { dir: 'apps/server', from: ['apps/server/src'], make: transpile },
  web: {
    dir: 'apps/web',
    from: ['apps/web/src', 'apps/web/index.html', 'packages/core/src', 'packages/agent/src/schema.ts'],
    make: bundle,
  },
}

for (const [name, target] of Object.entries(targets)) {
  if (asked.length && !asked.includes(name)) continue
  if (!existsSync(join(root, target.dir, 'src')) || !isDue(target)) continue
  if (!quiet) console.error(`building ${name}`)
  await target.make(join(root, target.dir))
  writeFileSync(join(root, target.dir, 'dist/.built'), '')
}

function isDue({ dir, from }) {
  const stamp = join(root, dir, 'dist/.built')
  if (!existsSync(stamp)) return true
  const built = statSync(stamp).mtimeMs
  return from.some((f) => newest(join(root, f)) > built)
}

function newest(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))))
}

function sources(dir) {
  return readdirSync(dir, { withFileTypes: true }).flatMap((entry) => {
    const path = join(dir, entry.name)
    if (entry.isDirectory()) return sources(path)
    return /\.ts$/.test(entry.name) && !/\.(test|d)\.ts$/.test(entry.name) ? [path] : []
  })
}

async function transpile(dir, clean = true) {
  if (clean) rmSync(join(dir, 'dist'), { recursive: true, force: true })
  for (const file of sources(join(dir, 'src'))) {
    const to = join(dir, 'dist', relative(join(dir, 'src'), file).replace(/\.ts$/, '.js'))
    const { code } = await compile(file)
    mkdirSync(dirname(to), { recursive: true })
    writeFileSync(to, code.replace(/(from\s+['"]\.{1,2}\/[^'"]+)\.ts(['"])/g, '$1.js$2'))
  }
}

function compile(file) {
  return transformFile(file, {
    jsc: {
      target: 'es2023',
      parser: { syntax: 'typescript', decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      rewriteRelativeImportExtensions: true,
    },
    module: { type: 'es6' },
    swcrc: false,
  })
}

async function bundle(dir, config = 'vite.config.js') {
  const before = process.cwd()
  process.chdir(dir)
  await viteBuild({ root: dir, configFile: join(dir, config), logLevel: 'warn' })
  process.chdir(before)
}

/** Scripts of handed-over pages, for every combination of parts. */
async function scriptVariants(dir) {
  mkdirSync(join(dir, 'dist'), { recursive: true })
  const { buildVariants } = await import(pathToFileURL(join(dir, 'variants.mjs')).href)
  await buildVariants(join(dir, 'dist'))
  const { code } = await compile(join(dir, 'src/text.ts'))
  writeFileSync(join(dir, 'dist/text.js'), code)
}

async function bundleAndTranspile(dir) {
  // Text that the bundle contains is bundled first.
  if (existsSync(join(dir, 'vite.lent.config.js'))) await bundle(dir, 'vite.lent.config.js')
  await bundle(dir)
  // Only the module that reads the built text is for Node.
  const text = readFileSync(join(dir, 'src/text.ts'), 'utf8')
    .replace(/^export type .*$/gm, '')
    .replace(': string =', ' =')
  writeFileSync(join(dir, 'dist/text.js'), text)
  const schema = join(dir, 'src/schema.ts')
  if (existsSync(schema)) writeFileSync(join(dir, 'dist/schema.js'), (await compile(schema)).code)
}
