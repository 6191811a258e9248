/** Mutation testing (npm run mutate). `mutate` is given on the command line by scripts/mutate.mjs. */
export default {
  testRunner: 'jest',
  jest: { configFile: 'jest.mutate.cjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 4_000,
  reporters: ['json', 'progress-append-only'],
  jsonReporter: { fileName: '.data/mutate/report.json' },
  tempDirName: '.data/mutate/tmp',
  ignorePatterns: ['.data', 'dist', 'docs', 'e2e', 'demo', 'apps/web', 'bench', 'test-results'],
  disableTypeChecks: false,
  allowConsoleColors: false,
};
