import { SHORT_PATH } from './platform/short-links';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { NestFactory } from '@nestjs/core';
import cookieParser from 'cookie-parser';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import { isHttps, type Config } from './platform/config';
import { requestSeconds } from './platform/health.controller';
import { serveOpenApi } from './platform/openapi';

/**
 * Nothing from elsewhere; inline styles only, which the leave page and editors need. Previews are framed and
 * sandboxed.
 */
const POLICY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'", 'data:'],
  connectSrc: ["'self'"],
  workerSrc: ["'self'", 'blob:'],
  frameSrc: ["'self'"],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
  upgradeInsecureRequests: null,
};

/** The HTTP application, ready to listen. */
export async function createApp(config: Config): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    bufferLogs: true,
    rawBody: true,
  });
  app.useLogger(app.get(Logger));
  app.set('trust proxy', config.TRUSTED_PROXIES === '' ? false : config.TRUSTED_PROXIES);
  app.set('query parser', 'simple');
  app.useBodyParser('json', { limit: '2mb' });
  app.use(cookieParser());
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: POLICY },
      strictTransportSecurity: isHttps(config) && { maxAge: 31_536_000, includeSubDomains: false },
      crossOriginResourcePolicy: { policy: 'same-origin' },
    }),
  );
  app.use(measure);
  app.use('/api', apiManners);
  // Forms are those of supporters' pages alone: what signs in or changes something comes as JSON, which no
  // form elsewhere can send.
  const forms = express.urlencoded({ extended: false, limit: '20kb' });
  app.use((request: Request, response: Response, next: NextFunction) =>
    /^\/api(\/|$)/.test(request.path) ? next() : forms(request, response, next),
  );
  // Short links are those that are followed, by another spelling.
  app.use((request: Request, _response: Response, next: NextFunction) => {
    const short = SHORT_PATH.exec(request.path)?.[1];
    if (short) request.url = `/f/${short}`;
    next();
  });
  serveOpenApi(app, config);
  if (config.WEB_DIR) serveWeb(app, config.WEB_DIR);
  app.enableShutdownHooks();
  return app;
}

const JSON_OR_FILES = /^(application\/json|multipart\/form-data)\b/i;

/** Answers of the API are nobody's to keep, and it takes JSON, or files beside it. */
function apiManners(request: Request, response: Response, next: NextFunction): void {
  response.set('cache-control', 'no-store');
  const type = request.headers['content-type'];
  const hasBody =
    request.headers['transfer-encoding'] !== undefined || Number(request.headers['content-length'] ?? 0) > 0;
  if (!hasBody || (type !== undefined && JSON_OR_FILES.test(type))) return next();
  const detail = 'The API takes JSON (content-type: application/json), and files as multipart/form-data.';
  response
    .status(415)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title: 'Not understood', status: 415, detail }));
}

function measure(request: Request, response: Response, next: NextFunction): void {
  const end = requestSeconds.startTimer();
  response.on('finish', () =>
    end({
      route: String((request.route as { path?: string } | undefined)?.path ?? 'none'),
      status: response.statusCode,
    }),
  );
  next();
}

const SERVER_PATHS = /^\/(api|hooks|leave|join|confirm|choices|o|f|media|health|metrics)(\/|$)/;

/** The built web application; every path that is not the server's is one of its pages. */
function serveWeb(app: NestExpressApplication, folder: string): void {
  const index = join(folder, 'index.html');
  if (!existsSync(index))
    throw new Error(
      `expected the built web application in ${folder}, got no index.html; run "npm run build"`,
    );
  app.use(
    '/assets',
    express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(folder, { index: false, maxAge: 0 }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || SERVER_PATHS.test(request.path)) return next();
    response.set('cache-control', 'no-cache').sendFile(index);
  });
}
