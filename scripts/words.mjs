/**
 * Holds the texts of the project to docs/words.md: no phrase that is ruled out there, and no finding, label or comment that is too long.
 * Part of `npm run lint`; exits with 1 where it finds one. `--draw N` prints so many texts at random instead, for reading.
 */
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './ensure.mjs'
import { textsOf } from './sentences.mjs'

const list = 'docs/words.md'
/** Words, a placeholder counted as one. */
const LIMITS = { finding: 25, hint: 25, label: 10 }
/** Of one sentence that explains something in a view. */
const SENTENCE = 16
const phrases = [...readFileSync(join(root, list), 'utf8').matchAll(/^- (.+)$/gm)].map(([, phrase]) => phrase)
const sought = new RegExp(`\\b(${phrases.join('|')})\\b`, 'i')
const files = execFileSync('git', ['ls-files', '--', '*.ts', '*.tsx', '*.mjs', '*.md'], { cwd: root, encoding: 'utf8' })
  .split('\n')
  .filter((file) => file && file !== list)
const read = (file) => readFileSync(join(root, file), 'utf8')

/** What kind of text a file's views and findings say; null for other files. */
function kindOf(file, text) {
  if (/\.test\.tsx?$/.test(file)) return null
  if (/^packages\/core\/src\/(findings\/|naming\/check)/.test(file)) return 'finding'
  if (!file.startsWith('apps/web/src/')) return null
  return /[.;:?!…] |\.$/.test(text) ? 'hint' : 'label'
}

const wordsOf = (text) => text.split(/\s+/).filter((word) => /[\p{L}\p{N}…]/u.test(word)).length

function complaints() {
  const found = []
  for (const file of files) {
    const source = read(file)
    for (const [i, line] of source.split('\n').entries()) {
      const phrase = sought.exec(line)?.[0]
      if (phrase) found.push(`${file}:${i + 1}: “${phrase}”; ${list} says what to write instead`)
    }
    if (!/\.tsx?$/.test(file)) continue
    for (const { kind, line, text } of textsOf(file, source)) {
      const limit = kind === 'said' ? LIMITS[kindOf(file, text)] : undefined
      const words = wordsOf(text)
      const long = kindOf(file, text) === 'hint' && text.split(/(?<=[.;:!?]) /).find((sentence) => wordsOf(sentence) > SENTENCE)
      if (kind === 'said' && long) found.push(`${file}:${line}: a sentence of ${wordsOf(long)} words of ${SENTENCE}: “${long}”`)
      if (words > limit) found.push(`${file}:${line}: ${words} words of ${limit}: “${text}”`)
    }
  }
  return found
}

/** Texts of four words and more, each with an equal chance. */
function draw(count) {
  const all = files
    .filter((file) => /^(apps|packages)\/.*\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file))
    .flatMap((file) => textsOf(file, read(file)).flatMap((text) => (wordsOf(text.text) >= 4 ? [{ ...text, file }] : [])))
  for (let n = 0; n < count; n++) {
    const [{ file, line, text }] = all.splice(Math.floor(Math.random() * all.length), 1)
    console.log(`${file}:${line}: ${text}`)
  }
}

const drawn = process.argv.indexOf('--draw')
if (drawn > 0) draw(Number(process.argv[drawn + 1]))
else {
  const found = complaints()
  for (const one of found) console.error(one)
  process.exitCode = found.length ? 1 : 0
}
