/** How many of 200 generated pages are right for a visitor: each link stops and lights as computed, or is told. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from '../ensure.mjs'

/** Other seeds than those of the browser tests. */
const [FROM, COUNT] = [1000, 200]

/** @param report takes a figure: subject, value, budget, whether met */
export function generated(report) {
  const args = [join(root, 'scripts/generated.mjs'), '--from', String(FROM), '--count', String(COUNT)]
  const { stdout } = spawnSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e8, stdio: ['ignore', 'pipe', 'inherit'] })
  console.log(stdout)
  const right = Number(/(\d+) of \d+ pages are right/.exec(stdout)?.[1] ?? 0)
  const links = [...stdout.matchAll(/: (\d+) links walked/g)].reduce((sum, [, n]) => sum + Number(n), 0)
  report(`generated pages on which every link (${links}) stops and lights as computed, or is told`, `${right}`, `${COUNT}`, right === COUNT)
}
