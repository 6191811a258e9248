/**
 * Arrows point one way: web and server import the core, the core imports nothing of theirs, the stand-ins
 * neither.
 */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment: 'the core computes: no I/O, no framework',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^(apps|demo|bench|e2e)/|node_modules/(@nestjs|knex|mysql2|react|express|nodemailer)/' },
    },
    {
      name: 'words-are-said-last',
      comment:
        'the core computes what is to be said; only its room of words, and who shows them, knows the words',
      severity: 'error',
      from: { path: '^packages/core/src/(?!words/|contract/generated)', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/words/', pathNot: 'en\\.json$' },
    },
    {
      name: 'core-has-no-io',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'web-knows-only-the-core',
      severity: 'error',
      from: { path: '^apps/web/src' },
      to: { path: '^apps/(server|standins)|^(demo|bench|e2e)/' },
    },
    {
      name: 'web-loads-no-joi',
      comment: "schemas are the server's; the web takes their types",
      severity: 'error',
      from: { path: '^apps/web/src' },
      to: { path: '^packages/core/src/contract', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'standins-stand-alone',
      severity: 'error',
      from: { path: '^apps/standins/src' },
      to: { path: '^apps/(server|web)|^packages/' },
    },
    {
      name: 'platform-knows-no-domain',
      severity: 'error',
      from: { path: '^apps/server/src/platform', pathNot: '\\.test\\.ts$' },
      to: { path: '^apps/server/src/(?!platform)' },
    },
    {
      name: 'harness-only-in-tests',
      severity: 'error',
      from: { path: '^apps/server/src', pathNot: '\\.test\\.ts$|/testing/' },
      to: { path: '/testing/|test-database' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules|dist' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.paths.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
