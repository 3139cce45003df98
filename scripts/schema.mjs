/** `npm run schema`: the JSON Schema of site.json, from the core's own shapes, into docs/site.schema.json. `--check` only says whether it is as it would be made. */
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { format, resolveConfig } from 'prettier'
import { root } from './ensure.mjs'

const { siteSchema } = await import(join(root, 'packages/core/dist/schema.js'))
const to = join(root, 'docs/site.schema.json')
const schema = siteSchema['~standard'].jsonSchema.input({ target: 'draft-2020-12' })
const text = await format(
  JSON.stringify({ $schema: 'https://json-schema.org/draft/2020-12/schema', title: 'Way Bell site, version 3', ...schema }),
  { ...(await resolveConfig(to)), parser: 'json' },
)
if (!process.argv.includes('--check')) writeFileSync(to, text)
else if (readFileSync(to, 'utf8') !== text) {
  console.error('docs/site.schema.json is not what the shapes say; run npm run schema')
  process.exitCode = 1
}
