import { t } from '@lingui/core/macro';
import type { ProblemDetails } from '@goodword/core/contract';

/** A request that the server refused, with its sentence. */
export class ProblemError extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail);
  }

  /** The sentence about one field, if there is one. */
  of(field: string): string | undefined {
    return this.problem.faults?.find((fault) => fault.field === field)?.message;
  }
}

let csrf = '';

/** The word that proves that a change comes from a page of ours. */
export function keepCsrf(word: string): void {
  csrf = word;
}

async function problemOf(response: Response): Promise<ProblemDetails> {
  const body = (await response.json().catch(() => null)) as ProblemDetails | null;
  return (
    body ?? {
      type: '',
      title: t`No answer`,
      status: response.status,
      detail: t`The server gave no answer that can be read. Try again in a moment.`,
    }
  );
}

/** Calls the server; throws a ProblemError with a sentence fit to show. */
export async function call<T = void>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  /** Sent also while the page is being closed. */
  keepalive = false,
): Promise<T> {
  const form = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(`/api/${path}`, {
      method,
      keepalive,
      headers: {
        'x-gw-csrf': csrf,
        ...(body !== undefined && !form ? { 'content-type': 'application/json' } : {}),
      },
      body: form ? body : body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ProblemError({
      type: '',
      title: t`No connection`,
      status: 0,
      detail: t`The server cannot be reached just now. What you typed is still here; try again in a moment.`,
    });
  }
  if (!response.ok) throw new ProblemError(await problemOf(response));
  const text = await response.text();
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

export const get = <T>(path: string) => call<T>('GET', path);

/** `?a=1&b=2` of what is set. */
export function query(values: Record<string, string | number | null | undefined>): string {
  const set = Object.entries(values).filter(
    ([, value]) => value !== null && value !== undefined && value !== '',
  );
  return set.length === 0
    ? ''
    : `?${new URLSearchParams(set.map(([key, value]) => [key, String(value)])).toString()}`;
}

/** Sends one file, as the form field `file`. */
export function upload<T = void>(method: 'POST' | 'PUT', path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append('file', file);
  return call<T>(method, path, form);
}
