import type { INestApplication, INestApplicationContext } from '@nestjs/common';
import { HTTP_CODE_METADATA, METHOD_METADATA, PATH_METADATA } from '@nestjs/common/constants';
import { RequestMethod } from '@nestjs/common';
import { DiscoveryService, MetadataScanner, ModulesContainer } from '@nestjs/core';
import { SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import type { NextFunction, Request, Response } from 'express';
import type { Schema } from 'joi';
import convert from 'joi-to-swagger';
import { answers, schema } from '@goodword/core/contract';
import { ROUTE_RULE, type RouteRule } from './api';
import type { Config } from './config';
import { readCookie } from './cookies';
import { isOurs } from './ours';
import { Sessions } from './sessions';

export interface DeclaredRoute {
  method: string;
  path: string;
  rule: RouteRule | undefined;
  handler: string;
  /** The status of its success, where that is not the usual one of its method. */
  status: number | undefined;
}

/** Every route of the application with what it declares; `rule` is undefined where a route forgot to. */
export function routesOf(app: INestApplicationContext): DeclaredRoute[] {
  const discovery = new DiscoveryService(app.get(ModulesContainer));
  const scanner = new MetadataScanner();
  return discovery.getControllers().flatMap(({ metatype }) => {
    const base = String(Reflect.getMetadata(PATH_METADATA, metatype as object) ?? '');
    const prototype = (metatype as { prototype: Record<string, object> }).prototype;
    return scanner.getAllMethodNames(prototype).flatMap((name) => {
      const handler = prototype[name]!;
      const path = Reflect.getMetadata(PATH_METADATA, handler) as string | undefined;
      if (path === undefined) return [];
      const method = RequestMethod[Reflect.getMetadata(METHOD_METADATA, handler) as number]!.toLowerCase();
      const full = `/${[base, path].join('/')}`.replace(/\/{2,}/g, '/').replace(/(.)\/$/, '$1');
      return [
        {
          method,
          path: full,
          rule: Reflect.getMetadata(ROUTE_RULE, handler) as RouteRule | undefined,
          handler: `${prototype.constructor?.name ?? ''}.${name}`,
          status: Reflect.getMetadata(HTTP_CODE_METADATA, handler) as number | undefined,
        },
      ];
    });
  });
}

type Swagger = { properties?: Record<string, unknown>; required?: string[] };
type Described = { swagger: object; components?: { schemas?: Record<string, object> } };

/** Shapes by the names that they have in the contract; those of requests say of what part they are. */
class Shapes {
  readonly schemas: Record<string, object> = {};
  private readonly names = new Map(
    Object.entries(schema).map(([name, one]) => [one as unknown, name[0]!.toUpperCase() + name.slice(1)]),
  );

  constructor() {
    for (const answer of Object.values(answers)) if (typeof answer === 'object') this.of(answer as Schema);
  }

  /** The shape, or a reference to it where it has a name. */
  of(one: Schema): object {
    const { swagger, components } = convert(one as never, { schemas: this.schemas }) as Described;
    Object.assign(this.schemas, components?.schemas);
    return swagger;
  }

  /** The shape of a part of a request, by the name of its schema. */
  ofRequest(one: Schema, part: 'Body' | 'Query' | 'Params'): object {
    const known = this.names.get(one);
    if (!known) throw new Error('expected a schema of the contract, got one that a route made for itself');
    const name = known.endsWith(part) ? known : `${known}${part}`;
    this.schemas[name] ??= this.of(one);
    return { $ref: `#/components/schemas/${name}` };
  }

  /** The parameters of a path or a query, one by one. */
  parameters(one: Schema | undefined, where: 'path' | 'query'): object[] {
    if (!one) return [];
    this.ofRequest(one, where === 'path' ? 'Params' : 'Query');
    const { properties = {}, required = [] } = this.of(one) as Swagger;
    return Object.entries(properties).map(([name, property]) => ({
      name,
      in: where,
      required: where === 'path' || required.includes(name),
      schema: property,
    }));
  }
}

const SUCCESS = { get: 200, put: 200, patch: 200, delete: 200, post: 201 } as Record<string, number>;

/** The OpenAPI 3 document, made from the same Joi schemas that check requests and, in tests, answers. */
export function openApiOf(app: INestApplicationContext): OpenAPIObject {
  const paths: OpenAPIObject['paths'] = {};
  const shapes = new Shapes();
  for (const { method, path, rule, handler, status } of routesOf(app)) {
    if (!rule) continue;
    const at = path.replace(/:(\w+)/g, '{$1}');
    const json = (one: object) => ({ 'application/json': { schema: one } });
    paths[at] = {
      ...paths[at],
      [method]: {
        operationId: handler,
        summary: rule.summary,
        description: rule.role === 'anyone' ? 'Needs no session.' : `Needs the role ${rule.role}.`,
        tags: [at.split('/')[2] ?? at.split('/')[1] ?? 'root'],
        parameters: [...shapes.parameters(rule.params, 'path'), ...shapes.parameters(rule.query, 'query')],
        ...(rule.body
          ? { requestBody: { required: true, content: json(shapes.ofRequest(rule.body, 'Body')) } }
          : {}),
        responses: {
          [status ?? SUCCESS[method]!]: {
            description: 'Done',
            ...(rule.answer ? { content: json(shapes.of(rule.answer)) } : {}),
          },
          default: {
            description: 'Problem details (RFC 9457) where it fails',
            content: { 'application/problem+json': { schema: shapes.of(answers.problemDetails) } },
          },
        },
      },
    } as never;
  }
  return {
    openapi: '3.0.3',
    info: {
      title: 'Good Word',
      version: '0.1.0',
      description: 'Every changing call of a session carries the header x-gw-csrf.',
    },
    paths,
    components: { schemas: shapes.schemas as never },
  };
}

/** The description is for those who work here, and for this machine. */
export function serveOpenApi(app: INestApplication, config: Config): void {
  const sessions = app.get(Sessions);
  // Beside the page there are the same as JSON and as YAML.
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (!/^\/api\/docs/.test(request.path) || isOurs(request, config)) return next();
    sessions
      .find(readCookie(config, request, 'session'))
      .then((session) => (session ? next() : response.redirect('/sign-in?to=%2F')), next);
  });
  SwaggerModule.setup('api/docs', app, () => openApiOf(app), { customSiteTitle: 'Good Word API' });
}
