import { i18n } from '@lingui/core';
import { I18nProvider } from '@lingui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ProblemError } from './api';
import { Pages } from './routes';

const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && !(error instanceof ProblemError && error.problem.status >= 400),
    },
  },
});

/** Draws the page. */
export function start(root: HTMLElement): void {
  createRoot(root).render(
    <StrictMode>
      <I18nProvider i18n={i18n}>
        <QueryClientProvider client={queryClient}>
          <Pages />
        </QueryClientProvider>
      </I18nProvider>
    </StrictMode>,
  );
}
