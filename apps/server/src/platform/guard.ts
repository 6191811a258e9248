import { seenAll } from '@goodword/core/common';
import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { ObjectSchema } from 'joi';
import { roleReaches } from '@goodword/core/contract';
import { requestOf, ROUTE_RULE, type KnownRequest, type RouteRule } from './api';
import { bounded } from './bounds';
import { CONFIG, type Config } from './config';
import { readCookie } from './cookies';
import { Forbidden, Invalid, Unauthenticated } from './errors';
import { Ownership } from './ownership';
import { Sessions } from './sessions';
import { sentence } from './words';

const CHANGING = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/**
 * Lets a request through when its route is declared, its caller may call it, and what it brings is what was
 * asked for.
 */
@Injectable()
export class RouteGuard implements CanActivate {
  constructor(
    @Inject(Reflector) private readonly reflector: Reflector,
    @Inject(Sessions) private readonly sessions: Sessions,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Ownership) private readonly ownership: Ownership,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const rule = this.reflector.get<RouteRule | undefined>(ROUTE_RULE, context.getHandler());
    if (!rule) throw new Forbidden(sentence('access.no-role'));
    const request = requestOf(context);
    if (rule.role !== 'anyone') {
      await this.admit(request, rule);
      const path = (request.route as { path: string }).path;
      await this.ownership.check(
        request.session!.scope,
        { method: request.method, path, rule },
        request.params.id,
      );
    }
    bounded(request.body);
    request.valid = {
      body: check(rule.body, request.body, 'body'),
      query: check(rule.query, request.query, 'query'),
      params: check(rule.params, request.params, 'address'),
    };
    return true;
  }

  private async admit(request: KnownRequest, rule: RouteRule): Promise<void> {
    const session = await this.sessions.find(readCookie(this.config, request, 'session'));
    if (!session) throw new Unauthenticated(sentence('access.session-ended'));
    if (rule.role !== 'anyone' && !roleReaches(session.scope.role, rule.role)) {
      throw new Forbidden(sentence('access.role', { role: rule.role, role2: session.scope.role }));
    }
    if (CHANGING.has(request.method) && !rule.ownProof && request.headers['x-gw-csrf'] !== session.csrf) {
      throw new Forbidden(sentence('access.not-from-page'));
    }
    request.session = session;
  }
}

/** More faults than these help nobody to mend them. */
const MOST_FAULTS = 20;

function check(schema: ObjectSchema | undefined, value: unknown, where: string): unknown {
  if (!schema) return value;
  const { value: checked, error } = schema.validate(seenAll(value ?? {}), {
    abortEarly: false,
    errors: { wrap: { label: '"' } },
  });
  if (!error) return checked as unknown;
  throw new Invalid(
    error.details.slice(0, MOST_FAULTS).map((detail) => ({
      field: detail.path.join('.') || where,
      code: detail.type,
      message: `${capital(detail.message)}.`.replace('..', '.'),
    })),
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
