// The one direction of dependencies (ARCHITECTURE.md); CI fails on a break or a cycle.
const rule = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });

/** The folders of the core, lowest first: each may import those before it and none behind it. */
const LAYERS = [
  'kit',
  'date',
  'version',
  'condition',
  'catalogue',
  'estate',
  'after',
  'compile',
  'lint',
  'bind',
  'pairing',
  'right',
  'route',
  'deadline',
  'plan',
  'order',
  'worksheet',
  'what-if',
  'ready',
  'compare',
  'exchange',
  'wording'
];
/** The same inside route/; what lies straight in it is the ground the others stand on. */
const ROUTE = ['step', 'days', 'search', 'tell', 'look'];
const folders = (list) => `^src/core/(${list.join('|')})/`;

module.exports = {
  forbidden: [
    rule('no-cycle', {}, { circular: true }, 'no cycles anywhere'),
    ...LAYERS.slice(0, -1).map((folder, i) =>
      rule(
        `nothing-above-${folder}`,
        { path: folders([folder]), pathNot: '\\.test\\.ts$' },
        { path: folders(LAYERS.slice(i + 1)) },
        `${folder}/ may import only the folders below it`
      )
    ),
    rule(
      'ground-of-route',
      { path: '^src/core/route/[^/]+$', pathNot: '/index\\.ts$' },
      { path: `^src/core/route/(${ROUTE.join('|')})/` },
      'what the folders of route/ stand on reads none of them'
    ),
    ...ROUTE.slice(0, -1).map((folder, i) =>
      rule(
        `nothing-above-route-${folder}`,
        { path: `^src/core/route/${folder}/` },
        { path: `^src/core/route/(${ROUTE.slice(i + 1).join('|')})/` },
        `route/${folder}/ may import only the folders below it`
      )
    ),
    rule(
      'every-folder-has-its-layer',
      { path: '^src/core/', pathNot: `${folders([...LAYERS, 'verify'])}|^src/core/index\\.ts$` },
      {},
      'a folder of the core stands in LAYERS'
    ),
    rule(
      'one-way-in',
      { path: '^src/core/([^/]+)/', pathNot: '^src/core/verify/|\\.test\\.ts$' },
      { path: '^src/core/[^/]+/', pathNot: ['^src/core/$1/', '^src/core/[^/]+/index\\.ts$'] },
      'a folder of the core is entered by its index.ts'
    ),
    rule(
      'one-way-in-from-outside',
      { path: '^src/', pathNot: '^src/core/' },
      { path: '^src/core/[^/]+/', pathNot: '^src/core/[^/]+/index\\.ts$' },
      'a folder of the core is entered by its index.ts'
    ),
    rule(
      'core-is-alone',
      { path: '^src/core' },
      { path: '^src/(lib|routes|standins)' },
      'core imports nothing of ours'
    ),
    rule('lib-over-core', { path: '^src/lib' }, { path: '^src/(routes|standins)' }, 'lib imports core only'),
    rule('core-no-node', { path: '^src/core' }, { dependencyTypes: ['core'] }, 'core runs anywhere'),
    rule(
      'verifier-is-independent',
      { path: '^src/core/verify/' },
      {
        path: '^src/core/',
        pathNot: `${folders(['verify', 'condition', 'version', 'date', 'kit'])}|^src/core/(catalogue|estate)/schema\\.ts$`,
        dependencyTypesNot: ['type-only']
      },
      'a verifier shares no code with what it verifies: beyond days, versions and conditions it reads schemas and types'
    ),
    rule(
      'nobody-verifies-by-itself',
      { path: folders(LAYERS) },
      { path: '^src/core/verify/' },
      'what is verified does not read its verifier'
    ),
    rule(
      'no-unresolved',
      {},
      {
        couldNotResolve: true,
        pathNot:
          '^(\\./\\$types|\\$app/|\\$service-worker|svelte/(internal|reactivity|attachments)|@sveltejs/kit|virtual:handbook)'
      },
      'every import resolves'
    )
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    webpackConfig: { fileName: 'dependency-aliases.cjs' },
    enhancedResolveOptions: { extensions: ['.ts', '.svelte', '.js', '.svelte.ts'] },
    exclude: { path: '\\.svelte-kit|^build' }
  }
};
