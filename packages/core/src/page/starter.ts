/** A plain starter page from an outline in text: headings, each with text or a list. For designers without a page yet. */
import { lexer, parseInline, type Token, type Tokens } from 'marked'
import { PageError } from './errors.ts'

const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
const plain = (text: string) =>
  text
    .replace(/[*_`~]+/g, '')
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
    .trim()

/** Emphasis, code and links; markup and `javascript:` become text. */
function inline(text: string): string {
  const html = parseInline(text.replace(/&/g, '&amp;').replace(/</g, '&lt;'), { async: false, gfm: true })
  return html.replace(/&amp;(lt|amp);/g, '&$1;').replace(/(href|src)="\s*(?!https?:|mailto:|tel:|#|\.{0,2}\/|[^":]*")[^"]*"/gi, '$1="#"')
}

function blocks(tokens: readonly Token[]): string {
  return tokens
    .map((token): string => {
      switch (token.type) {
        case 'paragraph':
        case 'text':
          return `<p>${inline((token as Tokens.Paragraph).text)}</p>`
        case 'list': {
          const { ordered, items } = token as Tokens.List
          const tag = ordered ? 'ol' : 'ul'
          return `<${tag}>\n${items.map((i) => `<li>${i.tokens.some((t) => t.type === 'list') ? blocks(i.tokens) : inline(i.text)}</li>`).join('\n')}\n</${tag}>`
        }
        case 'blockquote':
          return `<blockquote>${blocks((token as Tokens.Blockquote).tokens)}</blockquote>`
        case 'heading':
          return `<h3>${inline((token as Tokens.Heading).text)}</h3>`
        case 'space':
        case 'hr':
          return ''
        default:
          return `<pre>${escape((token as Tokens.Generic).raw.trim())}</pre>`
      }
    })
    .filter(Boolean)
    .join('\n')
}

/** @throws PageError `page-not-html` for text without a heading */
export function starterPage(outline: string): string {
  const tokens = lexer(outline.replace(/^\ufeff/, ''))
  const headings = tokens.filter((t): t is Tokens.Heading => t.type === 'heading')
  if (!headings.length)
    throw new PageError('page-not-html', 'the outline has no headings; start each section with a line such as “## Our work”')
  const least = Math.min(...headings.map((h) => h.depth))
  const lone = headings.filter((h) => h.depth === least).length === 1 && headings.length > 1 && headings[0]!.depth === least
  // A lone top-level heading is the page's title; its parts are one level below.
  const level = lone ? Math.min(...headings.slice(1).map((h) => h.depth)) : least
  const title = plain(headings[0]!.text) || 'Untitled'
  const parts: { heading: string; tokens: Token[] }[] = []
  const lead: Token[] = []
  let seen = !lone
  for (const token of tokens) {
    if (!seen && token === headings[0]) seen = true
    else if (token.type === 'heading' && (token as Tokens.Heading).depth <= level)
      parts.push({ heading: (token as Tokens.Heading).text, tokens: [] })
    else (parts.at(-1)?.tokens ?? lead).push(token)
  }
  const hero = lone
    ? [`<section class="hero">\n<h1>${inline(headings[0]!.text)}</h1>\n${blocks(lead)}\n</section>`]
    : lead.length
      ? [`<div class="hero">\n${blocks(lead)}\n</div>`]
      : []
  const sections = parts.map((p) => `<section>\n<h2>${inline(p.heading)}</h2>\n${blocks(p.tokens)}\n</section>`)
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(title)}</title>
<style>
* { box-sizing: border-box; }
body { margin: 0; font: 18px/1.6 Georgia, "Times New Roman", serif; color: #23201c; background: #fffdf9; }
section, .hero { padding: 72px max(24px, calc(50% - 360px)); min-height: 60vh; }
section:nth-of-type(even) { background: #f3eee4; }
.hero { padding-top: 128px; padding-bottom: 112px; background: #26423f; color: #f7f3ea; }
h1, h2, h3 { font-family: "Helvetica Neue", Arial, sans-serif; line-height: 1.15; }
h1 { font-size: clamp(36px, 7vw, 64px); margin: 0 0 24px; }
h2 { font-size: clamp(28px, 4vw, 40px); margin: 0 0 24px; }
h3 { margin: 32px 0 8px; }
a { color: inherit; }
li { margin: 4px 0; }
pre { overflow-x: auto; font-size: 15px; }
</style>
</head>
<body>
<main>
${[...hero, ...sections].join('\n')}
</main>
</body>
</html>
`
}
