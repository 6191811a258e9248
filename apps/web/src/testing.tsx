import { keyOf } from './app/reading';
import { i18n } from '@lingui/core';
import { I18nProvider } from '@lingui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, type RenderResult } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import type { SessionView } from '@goodword/core/contract';
import type { Role } from '@goodword/core/team';

/** A request as the stand-in for the server got it. */
export interface RecordedCall {
  method: string;
  path: string;
  body: unknown;
}

/**
 * What is answered to "GET tags" and the like: a value, or what makes one of the request. A `Response` goes
 * out as it is.
 */
export type StubbedAnswers = Record<string, unknown>;

/**
 * Answers the page's requests in the server's place, and keeps what was asked. Whatever is not named is "not
 * found".
 */
export function serve(answers: StubbedAnswers): RecordedCall[] {
  const asked: RecordedCall[] = [];
  globalThis.fetch = (async (input: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    const path = String(input).replace(/^\/api\//, '');
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : (init.body ?? null);
    asked.push({ method, path, body });
    const answer = answers[`${method} ${path}`] ?? answers[`${method} ${path.split('?')[0]!}`];
    if (answer === undefined)
      return reply(404, { title: 'Not found', status: 404, detail: `There is no ${path}.` });
    const made: unknown =
      typeof answer === 'function'
        ? await (answer as (one: RecordedCall) => unknown)({ method, path, body })
        : answer;
    return isReply(made) ? made : reply(200, made);
  }) as unknown as typeof fetch;
  return asked;
}

interface Reply {
  ok: boolean;
  status: number;
  text(): Promise<string>;
  json(): Promise<unknown>;
}

const isReply = (made: unknown): made is Reply =>
  typeof made === 'object' && made !== null && 'ok' in made && 'text' in made;

/** An answer with a status of its own, such as a refusal. */
export function reply(status: number, body: unknown): Reply {
  const text = body === undefined || body === null ? '' : JSON.stringify(body);
  return { ok: status < 400, status, text: async () => text, json: async () => JSON.parse(text) as unknown };
}

/** Somebody of the team, signed in. */
export function sessionOf(role: Role, chapterIds: number[] | null = null): SessionView {
  return {
    csrf: 'a word',
    teammate: { id: 1, name: 'Rosa Oduya', email: 'rosa@lanternferry.test', role, chapterIds },
    organization: {
      name: 'Lantern Ferry Trust',
      locale: 'en-US',
      timeZone: 'America/Los_Angeles',
      currency: 'USD',
      country: 'US',
    },
    chapters: [{ id: 1, name: 'East Landing' }],
  } as unknown as SessionView;
}

export interface Shown extends RenderResult {
  user: UserEvent;
  asked: RecordedCall[];
  queries: QueryClient;
}

/** Shows a part of the page to somebody of a role, with the answers that the server gives. */
export function show(
  what: ReactNode,
  { role = 'organizer', at = '/', answers = {} }: { role?: Role; at?: string; answers?: StubbedAnswers } = {},
): Shown {
  const asked = serve(answers);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  queries.setQueryData(keyOf('session'), sessionOf(role));
  const shown = render(
    <I18nProvider i18n={i18n}>
      <MemoryRouter initialEntries={[at]}>
        <QueryClientProvider client={queries}>{what}</QueryClientProvider>
      </MemoryRouter>
    </I18nProvider>,
  );
  return { ...shown, user: userEvent.setup(), asked, queries };
}
