import { defineConfig } from '@lingui/cli';
import { formatter } from '@lingui/format-po';

/**
 * One catalog in gettext's format for each language of the interface; sentences are put in order by what they
 * say.
 */
export default defineConfig({
  sourceLocale: 'en',
  locales: ['en'],
  catalogs: [{ path: '<rootDir>/src/locales/{locale}', include: ['src'], exclude: ['**/*.test.*'] }],
  format: formatter({ lineNumbers: false }),
  orderBy: 'message',
});
