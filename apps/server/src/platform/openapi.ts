import type { INestApplication } from '@nestjs/common';
import { PATH_METADATA, METHOD_METADATA } from '@nestjs/common/constants';
import { RequestMethod } from '@nestjs/common';
import { DiscoveryService, MetadataScanner, ModulesContainer } from '@nestjs/core';
import { SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import type { NextFunction, Request, Response } from 'express';
import convert from 'joi-to-swagger';
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
}

/** Every route of the application with what it declares; `rule` is undefined where a route forgot to. */
export function routesOf(app: INestApplication): DeclaredRoute[] {
  const discovery = new DiscoveryService(app.get(ModulesContainer));
  const scanner = new MetadataScanner();
  return discovery.getControllers().flatMap(({ instance, metatype }) => {
    const base = String(Reflect.getMetadata(PATH_METADATA, metatype as object) ?? '');
    const prototype = Object.getPrototypeOf(instance) as Record<string, object>;
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
        },
      ];
    });
  });
}

type Swagger = { properties?: Record<string, unknown>; required?: string[] };

/** The OpenAPI 3 document, made from the same Joi schemas that check the requests. */
export function openApiOf(app: INestApplication): OpenAPIObject {
  const paths: OpenAPIObject['paths'] = {};
  for (const { method, path, rule, handler } of routesOf(app)) {
    if (!rule) continue;
    const at = path.replace(/:(\w+)/g, '{$1}');
    const parameters = [...parametersOf(rule.params, 'path'), ...parametersOf(rule.query, 'query')];
    paths[at] = {
      ...paths[at],
      [method]: {
        operationId: handler,
        summary: rule.summary,
        description: rule.role === 'anyone' ? 'Needs no session.' : `Needs the role ${rule.role}.`,
        tags: [at.split('/')[2] ?? at.split('/')[1] ?? 'root'],
        parameters,
        ...(rule.body
          ? {
              requestBody: {
                required: true,
                content: { 'application/json': { schema: convert(rule.body).swagger } },
              },
            }
          : {}),
        responses: {
          default: {
            description: 'Problem details (RFC 9457) where it fails',
            content: { 'application/problem+json': {} },
          },
          '2XX': { description: 'Done' },
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
  };
}

function parametersOf(schema: RouteRule['params'], where: 'path' | 'query'): object[] {
  if (!schema) return [];
  const { properties = {}, required = [] } = convert(schema).swagger as Swagger;
  return Object.entries(properties).map(([name, property]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema: property,
  }));
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
