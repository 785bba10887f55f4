/** The house: imports go downward only (docs/architecture.md). */
const only = (name, from, allowed, comment) => ({
  name,
  severity: 'error',
  comment,
  from: { path: `^${from}/src` },
  to: {
    path: '^(core|contract|server|web|cli|demo|e2e|bench|scripts)/',
    pathNot: `^(${[from, ...allowed].join('|')})/`,
  },
});
const STATISTICS = [
  'numeric',
  'random',
  'distributions',
  'readings',
  'table',
  'describe',
  'transform',
  'outliers',
  'claims',
  'resampling',
  'simulation',
  'probability-plot',
  'goodness-of-fit',
];

module.exports = {
  forbidden: [
    only('core-stands-alone', 'core', [], 'core computes; it knows no other package. Move what it needs down into it.'),
    only('contract-on-core', 'contract', ['core'], 'contract describes the wire; it may only look at core.'),
    only(
      'server-on-contract',
      'server',
      ['contract', 'core'],
      'server may import contract and core, nothing beside or above it.',
    ),
    only(
      'web-on-contract',
      'web',
      ['contract', 'core'],
      'web reaches the server over HTTP only; share types through contract.',
    ),
    only('cli-on-contract', 'cli', ['contract', 'core'], 'cli runs the same analyses as the page, from core.'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core has no I/O: no Node module, no DOM library. Pass values in, give values back.',
      from: { path: '^core/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'statistics-below-the-road',
      severity: 'error',
      comment: 'The statistics do not know that anybody asks for them.',
      from: { path: `^core/src/(${STATISTICS.join('|')})/` },
      to: { path: '^core/src/(road|analyses)/' },
    },
    {
      name: 'road-below-analyses',
      severity: 'error',
      comment: 'The road knows what an analysis is, but none of them: hand it a look-up.',
      from: { path: '^core/src/road/' },
      to: { path: '^core/src/analyses/' },
    },
    {
      name: 'stages-apart',
      severity: 'error',
      comment:
        'The analyses of one stage do not know those of another; what both need goes to the road or the statistics.',
      from: { path: '^core/src/analyses/([^/]+)/' },
      to: { path: '^core/src/analyses/[^/]+/', pathNot: '^core/src/analyses/$1/' },
    },
    {
      name: 'tables-of-contents-for-others',
      severity: 'error',
      comment: 'Inside the core a file imports the file it means, so that circles are seen.',
      from: { path: '^core/src/', pathNot: '^core/src/analyses/registry' },
      to: { path: '^core/src/[^/]+/index|^core/src/format' },
    },
    {
      name: 'numeric-at-the-bottom',
      severity: 'error',
      comment: 'numeric is the ground: it imports nothing from the rest of the core.',
      from: { path: '^core/src/numeric/' },
      to: { path: '^core/src/', pathNot: '^core/src/numeric/' },
    },
    {
      name: 'workbench-below-stages',
      severity: 'error',
      comment:
        'The workbench and the charts know no stage: what they need of one stands in its stage.ts, handed to them.',
      from: { path: '^web/src/(workbench|charts)/' },
      to: { path: '^web/src/stages/' },
    },
    {
      name: 'stages-of-the-page-apart',
      severity: 'error',
      comment: 'A stage knows no other one; what both need goes to the workbench, the charts or the components.',
      from: { path: '^web/src/stages/([^/]+)/' },
      to: { path: '^web/src/stages/', pathNot: '^web/src/stages/$1/' },
    },
    {
      name: 'queries-in-the-store',
      severity: 'error',
      comment: 'Only the store talks to the database; add a function there.',
      from: { path: '^server/src', pathNot: '^server/src/store/' },
      to: { path: 'node_modules/(drizzle-orm|mysql2)' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      comment: 'Two files that import each other are one file, or need a third.',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|node_modules/\\.)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.tests.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['source', 'import', 'default'],
      extensions: ['.ts', '.js', '.vue', '.mjs'],
    },
  },
};
