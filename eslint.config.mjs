import lingui from 'eslint-plugin-lingui';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'test-results/**', '**/generated.ts'] },
  ...tseslint.configs.recommended,
  {
    plugins: { regexp },
    rules: {
      // A pattern that takes ten times as long for a text twice as long is a way to stop the house.
      'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }],
      'regexp/no-super-linear-move': ['error', { report: 'certain' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      'max-lines-per-function': ['warn', { max: 90, skipComments: true, skipBlankLines: true }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', '**/*.spec.ts', 'e2e/**', 'bench/**', 'scripts/**'],
    rules: { 'max-lines-per-function': 'off' },
  },
  {
    files: ['**/*.test.ts', '**/testing/**', 'e2e/**', 'bench/**', 'scripts/**', 'demo/**'],
    rules: { 'regexp/no-super-linear-backtracking': 'off', 'regexp/no-super-linear-move': 'off' },
  },
  {
    // What the core returns to be said is no text yet, and the compiler takes it in a template all the same.
    files: ['packages/core/src/**/*.ts', 'apps/server/src/**/*.ts', 'apps/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.*'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: { '@typescript-eslint/no-base-to-string': 'error' },
  },
  {
    // What is said on a screen stands in the catalog. One word alone may be a key and is not told from one.
    files: ['apps/web/src/**'],
    ignores: ['**/*.test.*', '**/testing.tsx'],
    plugins: { lingui },
    rules: {
      'lingui/no-unlocalized-strings': [
        'error',
        {
          ignore: [
            '^[^ ]*$',
            '^(?![^]*[A-Za-z]{2} +[A-Za-z“{]{2})',
            '^[^]*(px|-\\[|:[a-z])[^]*$',
            '^(/|https?:|[a-z]+/)',
            '(^| )(bg|border|inset|z|p|w|text-ink)-',
            '^(fixed|absolute|relative|subtitle|underline) ',
            '^ *<',
            '^Email,',
            '[.]csv$|\\t|\\r\\n',
            '^Where they go$',
          ],
          ignoreNames: ['className', 'd', { regex: { pattern: '^(CHIP|FILTER|CHOICE|CELL|.*[Cc]lass)$' } }],
          ignoreFunctions: [
            'call',
            'get',
            'Error',
            'useMay',
            '*.querySelector',
            '*.querySelectorAll',
            '*.closest',
            '*.matches',
          ],
        },
      ],
      'lingui/no-nested-macro': 'off',
    },
  },
  {
    // The core says which sentence, and has none: what is left are lists of words that are read, sources, and
    // names in messages.
    files: ['packages/core/src/**/*.ts'],
    ignores: [
      '**/*.test.ts',
      'packages/core/src/{words,contract}/**',
      'packages/core/src/fields/{dates,kinds/yesno,kinds/datetime}.ts',
      'packages/core/src/intake/{consents,headers,names,statuses,vcard,vcard-writer}.ts',
      'packages/core/src/{letter/compile,merge/registry,permission/presets}.ts',
      'packages/core/src/text/**',
    ],
    plugins: { lingui },
    rules: {
      'lingui/no-unlocalized-strings': [
        'error',
        {
          ignore: [
            '^[^ ]*$',
            '^(?![^]*[A-Za-z]{2} +[A-Za-z“{]{2})',
            // Pieces of HTML and of its styles, families of letters, merge fields.
            '<|="|:[^ ]*;|serif$|amount=\\{',
          ],
          ignoreNames: [{ regex: { pattern: '^[A-Z_]+$' } }],
          ignoreFunctions: ['Error'],
        },
      ],
    },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['scripts/**', 'bench/**', 'demo/**', 'apps/standins/**'], rules: { 'no-console': 'off' } },
);
