import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { NestFactory } from '@nestjs/core';
import cookieParser from 'cookie-parser';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import type { Config } from './platform/config';
import { requestSeconds } from './platform/health.controller';
import { serveOpenApi } from './platform/openapi';

/** Nothing from elsewhere; inline styles only, which the leave page and editors need. Previews are framed and sandboxed. */
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
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), { bufferLogs: true, rawBody: true });
  app.useLogger(app.get(Logger));
  app.set('trust proxy', 'loopback');
  app.set('query parser', 'simple');
  app.useBodyParser('json', { limit: '2mb' });
  app.useBodyParser('urlencoded', { extended: false, limit: '20kb' });
  app.use(cookieParser());
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: POLICY },
      strictTransportSecurity: config.COOKIE_SECURE,
      crossOriginResourcePolicy: { policy: 'same-origin' },
    }),
  );
  app.use(measure);
  serveOpenApi(app);
  if (config.WEB_DIR) serveWeb(app, config.WEB_DIR);
  app.enableShutdownHooks();
  return app;
}

function measure(request: Request, response: Response, next: NextFunction): void {
  const end = requestSeconds.startTimer();
  response.on('finish', () => end({ route: String((request.route as { path?: string } | undefined)?.path ?? 'none'), status: response.statusCode }));
  next();
}

const SERVER_PATHS = /^\/(api|hooks|leave|join|confirm|choices|o|f|media|health|metrics)(\/|$)/;

/** The built web application; every path that is not the server's is one of its pages. */
function serveWeb(app: NestExpressApplication, folder: string): void {
  const index = join(folder, 'index.html');
  if (!existsSync(index)) throw new Error(`expected the built web application in ${folder}, got no index.html; run "npm run build"`);
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(folder, { index: false, maxAge: 0 }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || SERVER_PATHS.test(request.path)) return next();
    response.set('cache-control', 'no-cache').sendFile(index);
  });
}
