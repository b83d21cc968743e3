/** Imports point one way; see docs/architecture.md. */
const AREAS =
  'workspaces|intakes|forms|submissions|routes|runs|records|pipelines|fields|labels|views|reports|set-up|decisions|identity|sheets|outbox|audit|route-sheet';
const SCREENS = 'account|sign-in|home|intakes|submissions|routes|records|pipeline|set-up|decisions|identity';

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, dependencyTypesNot: ['type-only'] } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core' },
      to: { path: '^(packages/api|apps|demo|bench|e2e)' },
    },
    {
      name: 'core-has-no-input-or-output',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'api-knows-only-the-core',
      severity: 'error',
      from: { path: '^packages/api' },
      to: { path: '^(apps|demo|bench|e2e)' },
    },
    {
      name: 'apps-never-import-each-other',
      severity: 'error',
      from: { path: '^apps/([^/]+)/' },
      to: { path: '^apps/', pathNot: '^apps/$1/' },
    },
    {
      name: 'areas-meet-at-their-services',
      comment: 'Stores and tables are their own area’s affair; tables may name tables, for foreign keys.',
      severity: 'error',
      from: { path: `^apps/server/src/(${AREAS})/`, pathNot: '/tables\\.ts$' },
      to: { path: `^apps/server/src/(${AREAS})/.*(store|tables)\\.ts$`, pathNot: '^apps/server/src/$1/' },
    },
    {
      name: 'platform-knows-no-area',
      severity: 'error',
      from: { path: '^apps/server/src/platform/' },
      to: { path: `^apps/server/src/(${AREAS})/` },
    },
    {
      name: 'screens-never-import-each-other',
      severity: 'error',
      from: { path: `^apps/web/src/(${SCREENS})/` },
      to: { path: `^apps/web/src/(${SCREENS})/`, pathNot: '^apps/web/src/$1/' },
    },
    {
      name: 'components-know-no-screen',
      severity: 'error',
      from: { path: '^apps/web/src/(components|api|state)/' },
      to: { path: `^apps/web/src/(${SCREENS}|frame)/` },
    },
    {
      name: 'only-tests-use-test-tools',
      comment: 'And test tools each other.',
      severity: 'error',
      from: { path: '^(packages|apps)/.*/src/', pathNot: '(\\.test\\.tsx?$|/testing/)' },
      to: { path: 'fast-check|@jest|/testing/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(node_modules/(?!@haycart)|/dist/|/\\.tsc/|/pages/)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
