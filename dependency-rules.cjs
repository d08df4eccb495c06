// The one direction of dependencies (ARCHITECTURE.md); CI fails on a break or a cycle.
const rule = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });
module.exports = {
  forbidden: [
    rule('no-cycle', {}, { circular: true }, 'no cycles anywhere'),
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
      { path: '^src/core/.*/verify-[^/]*\\.ts$', pathNot: '\\.test\\.ts$' },
      {
        path: '^src/core/',
        pathNot: '^src/core/(condition|version|date)/|^src/core/[^/]+/(schema|types|verify-[a-z]+)\\.ts$'
      },
      'a verifier may import only condition, version, date arithmetic and schemas'
    ),
    rule(
      'no-unresolved',
      {},
      { couldNotResolve: true, pathNot: '^(\\./\\$types|\\$app/|svelte/internal|@sveltejs/kit)' },
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
