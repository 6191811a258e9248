import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { NestFactory } from '@nestjs/core';
import type { OpenAPIObject } from '@nestjs/swagger';
import { AppModule } from './app.module';
import { readConfig } from './platform/config';
import { openApiOf } from './platform/openapi';

/** The OpenAPI document of the program, without a database or a port: nothing is made but the routes. */
export async function description(): Promise<OpenAPIObject> {
  const config = readConfig({
    DATABASE_URL: 'mysql://nobody@localhost/none',
    PUBLIC_URL: 'http://localhost',
    SMTP_URL: 'smtp://localhost',
    DATA_DIR: '.',
    SECRET: randomBytes(32).toString('hex'),
  });
  return openApiOf(
    await NestFactory.createApplicationContext(AppModule.with(config), { preview: true, logger: false }),
  );
}
