import { t } from '@lingui/core/macro';
import type { paths, ProblemDetails } from '@goodword/core/contract';

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

/** The routes under `/api/` by their paths, as the API's description has them. */
type Api = { [P in keyof paths as P extends `/api/${infer Rest}` ? Rest : never]: paths[P] };
type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';
export type PathOf<M extends Method> = {
  [P in keyof Api]: Api[P] extends Record<M, unknown> ? P : never;
}[keyof Api];
type Operation<M extends Method, P extends keyof Api> = Api[P] extends Record<M, infer O> ? O : never;

type InPath<O> = O extends { parameters: { path: infer T } } ? T : unknown;
type InQuery<O> = O extends { parameters: { query?: infer T } }
  ? { [K in keyof NonNullable<T>]: NonNullable<T>[K] | null }
  : unknown;
type InBody<O> = O extends { requestBody: { content: { 'application/json': infer T } } }
  ? { body: T }
  : { files?: FormData };
/** What a call brings: parts of its path and query by their names, and its body or files. */
export type Brings<M extends Method, P extends keyof Api> = InPath<Operation<M, P>> &
  InQuery<Operation<M, P>> &
  InBody<Operation<M, P>>;
export type BringsArgs<M extends Method, P extends keyof Api> =
  object extends Brings<M, P> ? [bring?: Brings<M, P>] : [bring: Brings<M, P>];

type JsonOf<R> = R extends { content: { 'application/json': infer T } } ? T : never;
type Answered<O> = O extends { responses: infer R } ? { [S in keyof R]: JsonOf<R[S]> }[keyof R] : never;
/** What it answers with; nothing where the description names nothing. */
export type AnswerOf<M extends Method, P extends keyof Api> = [Answered<Operation<M, P>>] extends [never]
  ? void
  : Answered<Operation<M, P>>;

type Anything = Record<string, unknown> & { body?: unknown; files?: FormData };

/** The address of a call under `/api/`: what is in its path put there, all else that is set as its query. */
export function addressOf(path: string, { body: _body, files: _files, ...rest }: Anything = {}): string {
  const left = new Map(Object.entries(rest));
  const at = path.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = left.get(name);
    left.delete(name);
    return encodeURIComponent(String(value));
  });
  const set = [...left].filter(([, value]) => value !== null && value !== undefined && value !== '');
  const query = new URLSearchParams(set.map(([key, value]) => [key, String(value)])).toString();
  return query === '' ? at : `${at}?${query}`;
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

async function request(method: Method, path: string, bring?: Anything, keepalive = false): Promise<unknown> {
  const { body, files } = bring ?? {};
  let response: Response;
  try {
    response = await fetch(`/api/${addressOf(path, bring)}`, {
      method: method.toUpperCase(),
      keepalive,
      headers: {
        'x-gw-csrf': csrf,
        ...(body !== undefined ? { 'content-type': 'application/json' } : {}),
      },
      body: files ?? (body === undefined ? undefined : JSON.stringify(body)),
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
  return text === '' ? undefined : JSON.parse(text);
}

const by =
  <M extends Method>(method: M) =>
  <P extends PathOf<M>>(path: P, ...[bring]: BringsArgs<M, P>): Promise<AnswerOf<M, P>> =>
    request(method, path, bring as Anything) as Promise<AnswerOf<M, P>>;

/**
 * The server's routes, by their paths in the API's description: `api.get('segments/{id}/sizes', { id })`,
 * `api.post('tags', { body: { name } })`. Throws a ProblemError with a sentence fit to show.
 */
export const api = {
  get: by('get'),
  post: by('post'),
  put: by('put'),
  patch: by('patch'),
  delete: by('delete'),
  /** As `put`, and sent also while the page is being closed. */
  putAtLast: <P extends PathOf<'put'>>(path: P, ...[bring]: BringsArgs<'put', P>) =>
    request('put', path, bring as Anything, true) as Promise<AnswerOf<'put', P>>,
};

/** One file to be sent, as the form field `file`. */
export function fileForm(file: File): FormData {
  const form = new FormData();
  form.append('file', file);
  return form;
}
