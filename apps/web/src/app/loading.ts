import { createElement, lazy, type ComponentType, type ReactNode } from 'react';

type Load = () => Promise<{ default: ComponentType }>;

/** What begins anew each page whose code could not be loaded. */
const failed = new Set<() => void>();

/** A page whose code is loaded when it is first opened; the one before it stays until then. */
export function page(load: Load): ReactNode {
  const begin = () =>
    lazy(() =>
      load().catch((error: unknown) => {
        failed.add(() => (Page = begin()));
        throw error;
      }),
    );
  let Page = begin();
  const Opened = () => createElement(Page);
  return createElement(Opened);
}

/**
 * Loads again, when they are next opened, the pages that could not be: somebody was offline for a moment.
 * Only when asked, since a page that tried by itself would try for ever.
 */
export function tryAgain(): void {
  for (const begin of failed) begin();
  failed.clear();
}
