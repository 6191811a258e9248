const swc = (plugins = []) => [
  '@swc/jest',
  {
    jsc: {
      experimental: { plugins },
      target: 'es2022',
      parser: { syntax: 'typescript', tsx: true, decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, react: { runtime: 'automatic' } },
    },
    module: { type: 'commonjs' },
  },
];
// Sentences of the interface are read out of the code into its catalog, see apps/web/lingui.config.ts.
const sentences = swc([['@lingui/swc-plugin', { useLinguiV5IdGeneration: true }]]);
// Work goes through a queue and two processes share the machine in CI: a step that takes a second alone may
// take five there.
const patient = { setupFilesAfterEnv: ['<rootDir>/scripts/lib/patient.cjs'] };
const shared = {
  testEnvironment: 'node',
  transform: { '/apps/web/src/.+\\.tsx?$': sentences, '^.+\\.tsx?$': swc() },
  moduleNameMapper: {
    '^@goodword/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts',
    '^@goodword/server/(.*)$': '<rootDir>/apps/server/src/$1.ts',
  },
  modulePathIgnorePatterns: ['/dist/'],
};
module.exports = {
  testSequencer: '<rootDir>/scripts/lib/sequencer.cjs',
  projects: [
    {
      ...shared,
      displayName: 'web',
      testEnvironment: 'jsdom',
      // Packages as Node takes them: their builds for browsers are modules, which are not loaded here.
      // Charts are drawn by packages that are modules alone.
      transform: { ...shared.transform, '/node_modules/(d3-[a-z-]+|internmap)/.+\\.m?js$': swc() },
      transformIgnorePatterns: ['/node_modules/(?!(d3-[a-z-]+|internmap)/)'],
      testEnvironmentOptions: { customExportConditions: ['node', 'require', 'default'] },
      setupFilesAfterEnv: [
        '<rootDir>/scripts/lib/patient.cjs',
        '<rootDir>/scripts/lib/page.cjs',
        '<rootDir>/scripts/lib/english.cjs',
      ],
      testMatch: ['<rootDir>/apps/web/src/**/*.test.tsx'],
    },
    {
      ...shared,
      setupFilesAfterEnv: ['<rootDir>/scripts/lib/patient.cjs', '<rootDir>/scripts/lib/english.cjs'],
      displayName: 'core',
      testMatch: ['<rootDir>/packages/core/src/**/*.test.ts', '<rootDir>/apps/web/src/**/*.test.ts'],
    },
    {
      ...shared,
      ...patient,
      displayName: 'server',
      // In a run of everything the test command puts them together in a few groups, see
      // scripts/lib/test-groups.mjs.
      testMatch: process.env.TEST_GROUPS
        ? ['<rootDir>/.data/test/groups/*.test.ts']
        : ['<rootDir>/apps/{server,standins}/src/**/*.test.ts', '<rootDir>/demo/src/**/*.test.ts'],
    },
  ],
};
