import { inlineScripts, undeclaredNames } from './scripts.ts'
import { parseTree } from './tree.ts'

it.each<[string, string[], string[]]>([
  ['reads what nobody declares', ['if (typeof config !== "undefined") start(config)'], ['config', 'start']],
  ['declares it itself', ['var config = {}; function start() {} start(config)'], []],
  ['declares it in another script', ['start()', 'function start() {}'], []],
  ['writes it before it reads it', ['menu = document.body; menu.remove()'], []],
  ['reads it from the window', ['const c = window.settings || window["more"] || {}'], ['more', 'settings']],
  ['writes it to the window', ['window.settings = {}; self.settings.x = settings.y'], []],
  ['falls back on what may be there', ['window.layer = window.layer || []'], []],
  ['keeps it inside a function', ['(function () { var about = 1; let team; return about + team })()'], []],
  ['uses what every browser has', ['document.querySelector("x"); new Map(); setTimeout(alert, 1); history.back()'], []],
  ['is a module', ['import x from "./x.js"; export const team = x; team(news)'], ['news']],
  ['is broken', ['this is no script {'], []],
])('a script that %s', (_, scripts, names) => expect([...undeclaredNames(scripts)].sort()).toEqual(names))

it('reads scripts, not data, templates or files', () =>
  expect(
    inlineScripts(
      parseTree(
        '<script>a</script><script type="application/json">{}</script><script src=x.js>b</script><script type=module>c</script><template><script>d</script></template>',
      ),
    ),
  ).toEqual(['a', 'c']))
