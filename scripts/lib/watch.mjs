import { watch } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './prepare.mjs';

/** Calls back once things have been quiet for a moment after a change in any source folder. */
export function watchSources(onChange) {
  let timer = null;
  let running = Promise.resolve();
  for (const folder of ['packages/core/src', 'apps/server/src', 'apps/standins/src', 'apps/web/src']) {
    watch(join(ROOT, folder), { recursive: true }, () => {
      clearTimeout(timer);
      timer = setTimeout(() => (running = running.then(onChange)), 400);
    });
  }
}
