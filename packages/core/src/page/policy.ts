/** What the page's Content-Security-Policy in its head blocks: inline scripts and styles. */
import type { Tree } from './tree.ts'

export type Blocked = 'script' | 'style'

/**
 * The directives that decide it; the first present counts.
 * @see Content Security Policy Level 3, "get the effective directive for inline checks"
 */
const DIRECTIVES: Record<Blocked, readonly string[]> = {
  script: ['script-src-elem', 'script-src', 'default-src'],
  style: ['style-src-elem', 'style-src', 'default-src'],
}

function directivesOf(policy: string): Map<string, string[]> {
  const out = new Map<string, string[]>()
  for (const one of policy.split(';')) {
    const [name, ...sources] = one.trim().toLowerCase().split(/\s+/)
    // Of several the first counts.
    if (name && !out.has(name)) out.set(name, sources)
  }
  return out
}

/** @see Content Security Policy Level 3, "does a source list allow all inline behavior for type" */
const allowsInline = (sources: readonly string[]): boolean =>
  sources.includes("'unsafe-inline'") && !sources.some((s) => /^'(nonce|sha256|sha384|sha512)-/.test(s) || s === "'strict-dynamic'")

/** Blocked kinds, and the place of the first policy that blocks. */
export function blockedBy(tree: Tree): { kinds: Blocked[]; at: number } | null {
  const policies = tree.all.filter(
    (el) => el.tag === 'meta' && el.isHtml && el.attrs.get('http-equiv')?.trim().toLowerCase() === 'content-security-policy',
  )
  const blocks = (kind: Blocked, policy: string): boolean => {
    const said = directivesOf(policy)
    const name = DIRECTIVES[kind].find((d) => said.has(d))
    return name !== undefined && !allowsInline(said.get(name)!)
  }
  const found = policies.map((el) => ({
    at: el.at,
    kinds: (['script', 'style'] as const).filter((kind) => blocks(kind, el.attrs.get('content') ?? '')),
  }))
  const first = found.find(({ kinds }) => kinds.length)
  return first ? { kinds: [...new Set(found.flatMap(({ kinds }) => kinds))], at: first.at } : null
}
