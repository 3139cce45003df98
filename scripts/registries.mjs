/**
 * Folders in which each file is one thing of a kind, under the name of the file: their index is made from what is there, so that a new
 * one is one file. `node scripts/registries.mjs --check` only says whether they are as they would be made.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { format, resolveConfig } from 'prettier'
import { root } from './ensure.mjs'

const folders = [
  { dir: 'packages/core/src/findings/rules', name: 'rule', list: 'rules', what: 'Rules, by the code of what they find.' },
  {
    dir: 'packages/core/src/menus/items',
    name: 'item',
    list: 'itemKinds',
    what: 'Kinds of items.',
    besides: ['address', 'kind'],
    type: ['Target', 'ItemTarget', 'Where an item leads.'],
  },
  {
    dir: 'packages/core/src/menus/forms',
    name: 'form',
    list: 'forms',
    what: 'Forms of menus that are made.',
    besides: ['form', 'rules'],
    type: ['Form', 'MadeMenuForm', 'How a menu that is made looks, and where it stands.'],
  },
]

const camel = (file) => file.replace(/-(\w)/g, (_, letter) => letter.toUpperCase())
let isStale = false
for (const { dir, name, list, what, besides = [], type } of folders) {
  const files = readdirSync(join(root, dir))
    .filter((f) => /^[\w-]+\.ts$/.test(f) && !['index', ...besides].includes(f.slice(0, -3)))
    .map((f) => f.slice(0, -3))
    .sort()
  const capital = (f) => camel(`-${f}`)
  const imports = files.map((f) => `import { ${name} as ${camel(f)}${type ? `, type ${type[0]} as ${capital(f)}` : ''} } from './${f}.ts'`)
  const entries = files.map((f) => (camel(f) === f ? f : `'${f}': ${camel(f)}`))
  const source = `/** ${what} Made by scripts/registries.mjs from the files of this folder. */\n${imports.join('\n')}\n\nexport const ${list} = { ${entries.join(', ')} }\n${type ? `\n/** ${type[2]} */\nexport type ${type[1]} = ${files.map(capital).join(' | ')}\n` : ''}`
  const to = join(root, dir, 'index.ts')
  const text = await format(source, { ...(await resolveConfig(to)), parser: 'typescript' })
  if (readFileSyncOrNull(to) === text) continue
  isStale = true
  if (!process.argv.includes('--check')) writeFileSync(to, text)
  else console.error(`${dir}/index.ts is not what its folder says; run npm run registries`)
}
if (isStale && process.argv.includes('--check')) process.exitCode = 1

function readFileSyncOrNull(path) {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return null
  }
}
