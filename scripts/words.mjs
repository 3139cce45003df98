/** Finds the phrases that docs/words.md rules out, in every text file of the project. Part of `npm run lint`; exits with 1 where it finds one. */
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './ensure.mjs'

const list = 'docs/words.md'
const phrases = [...readFileSync(join(root, list), 'utf8').matchAll(/^- (.+)$/gm)].map(([, phrase]) => phrase)
const sought = new RegExp(`\\b(${phrases.join('|')})\\b`, 'i')
const files = execFileSync('git', ['ls-files', '--', '*.ts', '*.tsx', '*.mjs', '*.md'], { cwd: root, encoding: 'utf8' }).split('\n')

let found = 0
for (const file of files.filter((f) => f && f !== list))
  for (const [i, line] of readFileSync(join(root, file), 'utf8').split('\n').entries()) {
    const phrase = sought.exec(line)?.[0]
    if (!phrase) continue
    found++
    console.error(`${file}:${i + 1}: “${phrase}”; ${list} says what to write instead`)
  }
process.exitCode = found ? 1 : 0
