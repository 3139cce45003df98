/**
 * Joins the modules of the script into one text that reads like a hand-written file: comments, names and blank lines stay, types and
 * imports go, and only what is used comes along. A bundler drops comments within functions and rewrites what they contain.
 *
 * Lines between `//#if part` and `//#end` are for pages with that part only, and with `//#if !part` for the others.
 */
import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { format } from 'prettier'
import ts from 'typescript'

/**
 * @param entry file whose statements all come along
 * @param parts chosen parts
 * @param aliases files of imports that aren't relative
 * @returns the script, formatted
 */
export async function link(entry, parts, aliases) {
  const modules = new Map()
  const moduleOf = (file) => {
    if (!modules.has(file)) modules.set(file, readModule(file, parts, aliases))
    return modules.get(file)
  }
  const constants = new Map()
  const declared = new Map()
  const taken = []
  const take = (file, statement) => {
    if (declared.get(statement.declares[0]) === file || taken.includes(statement)) return
    for (const name of statement.declares) {
      if (declared.has(name)) throw new Error(`“${name}” is declared in ${declared.get(name)} and in ${file}`)
      declared.set(name, file)
    }
    // What it uses stands before it.
    for (const name of statement.uses) find(file, name)
    if (statement.constant === undefined) taken.push(statement)
    else constants.set(statement.declares[0], statement.constant)
  }
  const find = (file, name) => {
    const { own, imports, others } = moduleOf(file)
    if (own.has(name)) take(file, own.get(name))
    else if (imports.has(name)) find(imports.get(name), name)
    else for (const other of others) find(other, name)
  }
  for (const statement of moduleOf(entry).statements) take(entry, statement)
  const { outputText } = ts.transpileModule(inlined(taken.map((s) => s.text).join(''), constants).replace(/^\s*$/gm, BLANK), {
    compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext, removeComments: false },
  })
  const body = outputText
    .replace('"use strict";', '')
    .replaceAll(BLANK, '')
    .replace(/^export \{\};?$/m, '')
  return await format(`${BANNER}(function start() {\n${WAIT}${body}})()\n`, { parser: 'babel', printWidth: 120, singleQuote: true })
}

/** The compiler drops blank lines, but keeps comments. */
const BLANK = '//~'

const WAIT = `// Once the page's elements are there.
if (document.readyState === 'loading') return addEventListener('DOMContentLoaded', start)
`

const BANNER = `/*
 * Way Bell: marks the menu item of the section in view. Its data is the JSON beside it.
 * Links, offsets and smooth scrolling are HTML and CSS, and work without it.
 */
`

function forParts(text, parts, file) {
  const shown = [true]
  const lines = text.split('\n').filter((line) => {
    const [, word, not, names] = /^\s*\/\/#(if|end)(?: (!?)([\w|]+))?$/.exec(line) ?? []
    if (word === 'if') shown.push(shown.at(-1) && names.split('|').some((name) => parts.includes(name)) === !not)
    if (word === 'end') shown.pop()
    return !word && shown.at(-1)
  })
  if (shown.length !== 1) throw new Error(`${file}: each “#if” needs an “#end”`)
  return lines.join('\n')
}

function readModule(file, parts, aliases) {
  const source = ts.createSourceFile(file, forParts(readFileSync(file, 'utf8'), parts, file), ts.ScriptTarget.Latest, true)
  const imports = new Map()
  const statements = []
  /** Modules whose exports are all exported again. */
  const others = []
  for (const node of source.statements) {
    const from = node.moduleSpecifier?.text
    if (from) {
      const to = from.startsWith('.') ? join(dirname(file), from) : aliases[from]
      const { elements } = node.importClause?.namedBindings ?? node.exportClause ?? {}
      if (elements) for (const { name } of elements) imports.set(name.text, to)
      else others.push(to)
    } else if (!ts.isInterfaceDeclaration(node) && !ts.isTypeAliasDeclaration(node)) {
      const names = ts.isVariableStatement(node) ? node.declarationList.declarations.map((d) => d.name) : node.name ? [node.name] : []
      statements.push({
        text: textOf(node, source),
        declares: names.flatMap(namesIn),
        uses: identifiersIn(node),
        constant: constantIn(node),
      })
    }
  }
  return { statements, imports, others, own: new Map(statements.flatMap((s) => s.declares.map((name) => [name, s]))) }
}

/** With its own comment, and a blank line before it if the file has one. */
function textOf(node, source) {
  const full = node.getFullText(source)
  const [above, own] = [full.slice(0, node.getStart(source) - node.getFullStart()), node.getText(source).replace(/^export /, '')]
  const comment = above
    .split(/\n\s*\n/)
    .pop()
    .trim()
  return `${/\n\s*\n/.test(above) ? '\n\n' : '\n'}${comment}${comment && '\n'}${own}`
}

const namesIn = (name) => (ts.isIdentifier(name) ? [name.text] : name.elements.flatMap((e) => (e.name ? namesIn(e.name) : [])))

/** Without types and names of properties. */
function identifiersIn(node) {
  const out = new Set()
  const visit = (n) => {
    if (ts.isTypeNode(n)) return
    if (ts.isIdentifier(n) && !(ts.isPropertyAccessExpression(n.parent) && n.parent.name === n)) out.add(n.text)
    ts.forEachChild(n, visit)
  }
  visit(node)
  return out
}

/** The text of a string constant in capitals, which is written where it's used. */
function constantIn(node) {
  if (!ts.isVariableStatement(node)) return undefined
  const { name, initializer } = node.declarationList.declarations[0]
  return /^[A-Z_]+$/.test(name.getText()) && initializer && ts.isStringLiteral(initializer) ? initializer.text : undefined
}

function inlined(text, constants) {
  const source = ts.createSourceFile('script.ts', text, ts.ScriptTarget.Latest, true)
  const changes = []
  const visit = (node) => {
    const isName =
      ts.isIdentifier(node) && constants.has(node.text) && !(ts.isPropertyAccessExpression(node.parent) && node.parent.name === node)
    if (isName) {
      const value = constants.get(node.text)
      if (ts.isTemplateSpan(node.parent)) changes.push([node.getStart(source) - 2, node.end + 1, value])
      else changes.push([node.getStart(source), node.end, `'${value}'`])
    }
    // With nothing left to fill in.
    const isFilled = ts.isTemplateExpression(node) && node.templateSpans.every((span) => constants.has(span.expression.text))
    if (isFilled || ts.isNoSubstitutionTemplateLiteral(node))
      changes.push([node.getStart(source), node.getStart(source) + 1, "'"], [node.end - 1, node.end, "'"])
    ts.forEachChild(node, visit)
  }
  visit(source)
  changes.sort(([a], [b]) => a - b)
  for (const [from, to, value] of changes.reverse()) text = text.slice(0, from) + value + text.slice(to)
  return text
}
