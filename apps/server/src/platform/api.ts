import {
  applyDecorators,
  createParamDecorator,
  Delete,
  Get,
  Patch,
  Post,
  Put,
  SetMetadata,
  type ExecutionContext,
} from '@nestjs/common';
import type { ObjectSchema, Schema } from 'joi';
import type { Role } from '@goodword/core/contract';
import type { AccessScope } from './scope';
import type { Request } from 'express';

/**
 * What a route declares: who may call it, what it takes, and what it is for. A route without one is never
 * served.
 */
export interface RouteRule {
  /** "anyone" needs no session: sign-in, signed-token pages, hooks, health. */
  role: Role | 'anyone';
  summary: string;
  body?: ObjectSchema;
  query?: ObjectSchema;
  params?: ObjectSchema;
  /** What it answers with, as JSON; a route without one answers with nothing, or with a file or a page. */
  answer?: Schema;
  /** A changing route that carries its own proof (token, signature) instead of the session's CSRF word. */
  ownProof?: boolean;
  /** Changes what belongs to all chapters: for whoever may work in all. */
  ofAll?: boolean;
  /** Acts on the caller's own people in a thing, whoever that belongs to. */
  ownPeople?: boolean;
}

export const ROUTE_RULE = 'goodword:route';

const METHODS = { get: Get, post: Post, put: Put, patch: Patch, delete: Delete };

/**
 * Declares a route: `@Route('post', 'tags', { role: 'organizer', summary: 'Make a tag', body: schema.makeTag
 * })`.
 */
export function Route(method: keyof typeof METHODS, path: string, rule: RouteRule): MethodDecorator {
  return applyDecorators(METHODS[method](path), SetMetadata(ROUTE_RULE, rule));
}

export interface CallerSession {
  tokenHash: string;
  csrf: string;
  scope: AccessScope;
  teammateId: number;
}

export interface KnownRequest extends Request {
  session?: CallerSession;
  valid?: { body: unknown; query: unknown; params: unknown };
}

export function requestOf(context: ExecutionContext): KnownRequest {
  return context.switchToHttp().getRequest<KnownRequest>();
}

/**
 * Where a request comes from: the caller's address, as far as the proxies before us are believed, and their
 * browser.
 */
export function placeOfRequest(request: Request): { network: string; browser: string } {
  return { network: request.ip ?? '', browser: request.get('user-agent') ?? '' };
}

/** A checked part of the request: `@Input('body') body: SignIn`. */
export const Input = createParamDecorator(
  (part: 'body' | 'query' | 'params', context: ExecutionContext) => requestOf(context).valid?.[part],
);

/** The scope of the caller. */
export const Caller = createParamDecorator((_data: unknown, context: ExecutionContext): AccessScope => {
  const { session } = requestOf(context);
  if (!session) throw new Error('expected a session on a route that asks for a scope');
  return session.scope;
});

/** The id in the path. */
export const Id = createParamDecorator(
  (_data: unknown, context: ExecutionContext) => (requestOf(context).valid?.params as { id: number }).id,
);
