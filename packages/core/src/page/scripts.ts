/**
 * Names that scripts read and nothing declares. An element with such an ID becomes what they read.
 * @see HTML, "named access on the Window object"
 */
import { parse, type Program } from 'acorn'
import { analyze } from 'eslint-scope'
import globals from 'globals'
import type { Tree } from './tree.ts'

const known: ReadonlySet<string> = new Set([...Object.keys(globals.browser), ...Object.keys(globals.builtin)])

const isScript = (type: string) => type === '' || type === 'module' || /(java|ecma)script/i.test(type)

/** Text and kind of inline scripts. */
export function inlineScripts(tree: Tree): string[] {
  return tree.all
    .filter((el) => el.tag === 'script' && el.isHtml && !el.attrs.has('src') && isScript(el.attrs.get('type')?.trim().toLowerCase() ?? ''))
    .map((el) => el.texts.map((t) => t.value).join(''))
}

/** True when the page has a script of its own. */
export const hasScripts = (tree: Tree): boolean =>
  tree.all.some(
    (el) =>
      (el.tag === 'script' && isScript(el.attrs.get('type')?.trim().toLowerCase() ?? '')) ||
      [...el.attrs.keys()].some((name) => name.startsWith('on')),
  )

/** True when a script registers a service worker. */
export const registersWorker = (scripts: readonly string[]): boolean =>
  scripts.some((text) => /\bserviceWorker\b[^;]{0,80}?\.\s*register\s*\(/.test(text))

function parsed(text: string): { program: Program; sourceType: 'script' | 'module' } | null {
  for (const sourceType of ['script', 'module'] as const) {
    try {
      return { program: parse(text, { ecmaVersion: 'latest', sourceType, ranges: true, allowReturnOutsideFunction: true }), sourceType }
    } catch {
      // A module, or nothing that a browser would run.
    }
  }
  return null
}

/** All scripts together, because one may declare what another reads. */
export function undeclaredNames(scripts: readonly string[]): Set<string> {
  const read = new Set<string>()
  const declared = new Set<string>()
  for (const text of scripts) {
    const script = parsed(text)
    if (!script) continue
    const { program, sourceType } = script
    const { globalScope } = analyze(program as never, { ecmaVersion: 2024, sourceType, ignoreEval: true })
    if (!globalScope) continue
    for (const variable of sourceType === 'script' ? globalScope.variables : []) declared.add(variable.name)
    for (const reference of globalScope.through) {
      // Assigning an undeclared name makes it a global.
      if (reference.isWriteOnly()) declared.add(reference.identifier.name)
      else read.add(reference.identifier.name)
    }
    for (const { name, isWritten } of windowNames(program)) (isWritten ? declared : read).add(name)
  }
  return new Set([...read].filter((name) => !declared.has(name) && !known.has(name)))
}

interface Node {
  type: string
  [key: string]: unknown
}

/** `window.name`, read or written. */
function windowNames(program: Program): { name: string; isWritten: boolean }[] {
  const out: { name: string; isWritten: boolean }[] = []
  const stack: { node: Node; isWritten: boolean }[] = [{ node: program as unknown as Node, isWritten: false }]
  while (stack.length) {
    const { node, isWritten } = stack.pop()!
    if (node.type === 'MemberExpression') {
      const { object, property, computed } = node as unknown as {
        object: { name?: string }
        property: { name?: string; value?: unknown }
        computed: boolean
      }
      const name = computed ? property.value : property.name
      if (['window', 'self', 'globalThis'].includes(object.name ?? '') && typeof name === 'string') out.push({ name, isWritten })
    }
    for (const [key, value] of Object.entries(node))
      for (const child of Array.isArray(value) ? value : [value])
        if (child && typeof (child as Node).type === 'string')
          stack.push({ node: child as Node, isWritten: node.type === 'AssignmentExpression' && key === 'left' && node.operator === '=' })
  }
  return out
}
