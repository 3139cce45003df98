/** The texts of a source file that a person reads: what views, findings and the command line say, and comments. */
import ts from 'typescript'

const LETTERS = /\p{L}{2}/u
/** Styles, classes, markup and statements of a database, which stand in strings as well. */
const CODE =
  /var\(--|\w: [^;]+;|<\w|rgb\(|linear-gradient|^(ALTER|CREATE|DELETE|DROP|INSERT|PRAGMA|SELECT|UPDATE) |(^| )(min|max|px|py|text|border|bg|flex|gap)-[\w[]/
/** Attributes whose text is seen or read out. */
const SAID = new Set([
  'aria-label',
  'aria-description',
  'alt',
  'hint',
  'label',
  'placeholder',
  'title',
  'note',
  'name',
  'help',
  'description',
  'why',
  'otherwise',
])

/**
 * What a text says, each placeholder as “…”, and of the alternatives in it the longest.
 * @returns null for what is no text
 */
function textOf(node) {
  if (ts.isStringLiteralLike(node) || ts.isJsxText(node)) return node.text
  if (ts.isParenthesizedExpression(node)) return textOf(node.expression)
  if (ts.isConditionalExpression(node)) {
    const [one, other] = [node.whenTrue, node.whenFalse].map((branch) => textOf(branch) ?? '…')
    return one.length > other.length ? one : other
  }
  if (ts.isTemplateExpression(node))
    return node.head.text + node.templateSpans.map((span) => (textOf(span.expression) ?? '…') + span.literal.text).join('')
  if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken)
    return (textOf(node.left) ?? '…') + (textOf(node.right) ?? '…')
  return null
}

/** @returns {{ kind: 'said' | 'comment', line: number, text: string }[]} with white space joined */
export function textsOf(file, source) {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS)
  const texts = []
  const add = (kind, at, text) => {
    const joined = text.replace(/\s+/g, ' ').trim()
    if (LETTERS.test(joined) && !CODE.test(joined))
      texts.push({ kind, line: tree.getLineAndCharacterOfPosition(at).line + 1, text: joined })
  }
  const isSaid = (node) => {
    if (ts.isJsxText(node)) return true
    const { parent } = node
    if (ts.isImportDeclaration(parent) || ts.isExportDeclaration(parent) || ts.isLiteralTypeNode(parent)) return false
    for (let around = parent; around && !ts.isFunctionLike(around); around = around.parent)
      if (ts.isJsxAttribute(around)) return SAID.has(around.name.getText())
    return true
  }
  const visit = (node) => {
    const text = textOf(node)
    // One word may be a key, a type or a class.
    if (text !== null && isSaid(node) && (ts.isJsxText(node) || /\p{L} \S*\p{L}/u.test(text))) return add('said', node.getStart(), text)
    ts.forEachChild(node, visit)
  }
  visit(tree)
  for (const [comment] of source.matchAll(/\/\*[\s\S]*?\*\/|(?<=^|\s)\/\/ .*/gm))
    add('comment', source.indexOf(comment), comment.replace(/^\/\*+|\*\/$|^\s*\* ?|^\/\/ /gm, ''))
  return texts
}
