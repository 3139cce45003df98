/** Imports go downwards only: web, server, cli -> core; cli -> driver -> agent -> core; runtime -> core; inside the core in the order of its folders. */
/** A folder may import those before it. `menus/items` and `menus/forms` stand before the document, which holds what they declare. */
const order = [
  'contract',
  'colour',
  'shape',
  'page',
  'naming',
  'menus/items',
  'menus/forms',
  'survey',
  'site',
  'links',
  'menus',
  'arrival',
  'highlight',
  'proposal',
  'revision',
  'walk',
  'findings',
  'handover',
]
/** Doors of a folder: its index, its schema for those who check, its builder for tests. */
const doors = '(index|schema|builder|kind|form)\\.ts$'
const inside = (folder) => (folder === 'menus' ? 'menus/(?!items/|forms/)' : `${folder}/`)

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '(\\.test|builder)\\.ts$' },
      to: {
        pathNot:
          '^packages/core/src|node_modules/(parse5|entities|culori|css\\.escape|css-tree|srcset|@noble/hashes|joi|any-ascii|acorn|fastest-levenshtein|eslint-scope|globals|marked|@exodus/bytes|html-encoding-sniffer)/',
      },
    },
    {
      name: 'runtime-and-agent-use-the-core-alone',
      severity: 'error',
      from: { path: '^packages/(runtime|agent)/src', pathNot: '(text|schema|databases|\\.test)\\.ts$' },
      to: { pathNot: '^packages/(core|\\1|runtime|agent)/' },
    },
    {
      name: 'driver-uses-agent-and-core',
      severity: 'error',
      from: { path: '^packages/driver/src' },
      to: { path: '^packages/(cli|runtime)/' },
    },
    { name: 'nothing-below-imports-above', severity: 'error', from: { path: '^packages/' }, to: { path: '^(apps|e2e|demo)/' } },
    { name: 'apps-keep-apart', severity: 'error', from: { path: '^apps/web/' }, to: { path: '^(apps/server|packages/cli)/' } },
    { name: 'server-keeps-apart', severity: 'error', from: { path: '^apps/server/' }, to: { path: '^(apps/web|packages/cli)/' } },
    {
      name: 'checks-share-nothing',
      severity: 'error',
      comment: 'What checks a figure imports nothing that computed it.',
      from: { path: '^e2e/' },
      to: { path: '^(packages|apps)/' },
    },
    ...order.map((folder, i) => ({
      name: `core-${folder}-downwards`,
      severity: 'error',
      from: { path: `^packages/core/src/${inside(folder)}`, pathNot: '(\\.test|builder)\\.ts$' },
      to: { path: `^packages/core/src/(${['-', ...order.slice(i + 1).map(inside)].join('|')})` },
    })),
    ...order.map((folder) => ({
      name: `core-${folder}-by-its-index`,
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: `^packages/core/src/${inside(folder)}` },
      to: { path: `^packages/core/src/${inside(folder)}(?!${doors})` },
    })),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['types', 'import', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
    tsConfig: { fileName: 'tsconfig.base.json' },
  },
}
