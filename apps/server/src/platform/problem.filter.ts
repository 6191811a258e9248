import {
  Catch,
  HttpException,
  Inject,
  Injectable,
  Logger,
  type ArgumentsHost,
  type ExceptionFilter,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { escapeHtml } from '@goodword/core/letter';
import { LANGUAGES } from '@goodword/core/forms';
import { languageOf, supporterPage } from './pages/page';
import { PHRASES } from './pages/phrases';
import type { ProblemDetails } from '@goodword/core/contract';
import { CONFIG, type Config } from './config';
import { codeOf, isLostConnection, tookTooLong } from './database-errors';
import { BroughtTogether, DomainError, Invalid, Newer, Unavailable } from './errors';
import { sentence } from './words';

const SUPPORTERS_PAGES = /^\/(join|confirm|choices|leave)\//;

const NO_ROOM =
  'The disk of the server is full, so nothing can be kept just now. What you typed is still here; tell whoever looks after the server.';
const ONLY_READ =
  'The server can only read just now, and keeps nothing. What you typed is still here; tell whoever looks after the server.';
const ROOM: Record<string, string> = {
  ENOSPC: NO_ROOM,
  EDQUOT: NO_ROOM,
  ER_DISK_FULL: NO_ROOM,
  ER_RECORD_FILE_FULL: NO_ROOM,
  EROFS: ONLY_READ,
  EACCES: ONLY_READ,
  ER_OPTION_PREVENTS_STATEMENT: ONLY_READ,
  ER_OPEN_AS_READONLY: ONLY_READ,
  ER_NO_SUCH_TABLE:
    'The database has another schema than this program. Whoever looks after the server starts it by “npm start”, which mends that.',
};

/** A sentence for what keeps the server from keeping anything; null for other faults. */
export function roomFault(error: unknown): string | null {
  return ROOM[codeOf(error)] ?? null;
}

/**
 * Turns every error into RFC 9457 problem details; what was not foreseen is logged whole and told in one
 * plain sentence.
 */
@Catch()
@Injectable()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('problem');

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const problem = this.problemOf(error);
    if (problem.status >= 500) this.log.error({ err: error }, problem.title);
    if (response.headersSent) return;
    const request = host.switchToHttp().getRequest<Request>();
    if (SUPPORTERS_PAGES.test(request.path) && !request.path.includes('.'))
      return this.page(request, response, problem);
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  }

  /** Supporters get a page and not a document for programs. */
  private page(request: Request, response: Response, problem: ProblemDetails): void {
    const language = languageOf(request, LANGUAGES, 'en');
    const p = PHRASES[language];
    const [title, body] =
      problem.status === 413
        ? [p.tooBig, p.tooBigBody]
        : problem.status === 404
          ? [p.dead, p.deadBody]
          : [problem.title, problem.detail];
    response
      .status(problem.status)
      .type('html')
      .send(supporterPage(title, `<h1>${escapeHtml(title)}</h1><p>${escapeHtml(body)}</p>`, { language }));
  }

  private problemOf(error: unknown): ProblemDetails {
    const domain = isLostConnection(error) ? new Unavailable(sentence('fault.database')) : error;
    const room = roomFault(error);
    if (room) return this.problem(503, 'Not reachable just now', room);
    if (tookTooLong(error)) return this.problem(503, 'Not reachable just now', sentence('fault.too-long'));
    if (domain instanceof BroughtTogether)
      return { ...this.problem(domain.status, domain.title, domain.message), instead: domain.instead };
    if (domain instanceof Newer)
      return { ...this.problem(domain.status, domain.title, domain.message), newer: true, now: domain.now };
    if (domain instanceof DomainError)
      return this.problem(
        domain.status,
        domain.title,
        domain.message,
        domain instanceof Invalid ? domain.faults : undefined,
      );
    const status =
      error instanceof HttpException ? error.getStatus() : ((error as { status?: number }).status ?? 500);
    if (status === 413) return this.problem(413, 'Too large', sentence('fault.too-large'));
    if (status === 429) return this.problem(429, 'That was very often', sentence('fault.too-often'));
    if (status < 500)
      return this.problem(
        status,
        'Not understood',
        status === 404 ? 'There is nothing at this address.' : (error as Error).message,
      );
    return this.problem(500, 'A fault of ours', sentence('fault.ours'));
  }

  private problem(
    status: number,
    title: string,
    detail: string,
    faults?: ProblemDetails['faults'],
  ): ProblemDetails {
    return { type: `${this.config.PUBLIC_URL}/problems/${status}`, title, status, detail, faults };
  }
}
