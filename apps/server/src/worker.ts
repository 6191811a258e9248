import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import { readConfig, type Config } from './platform/config';
import { createWorker } from './create-worker';

async function main(): Promise<void> {
  let config: Config;
  try {
    config = readConfig(process.env);
  } catch (error) {
    process.stderr.write(`${(error as Error).message}\n`);
    process.exit(78);
  }
  const context = await NestFactory.createApplicationContext(AppModule.with(config), { bufferLogs: true });
  context.useLogger(context.get(Logger));
  const worker = createWorker(context, config);
  const stop = () =>
    void worker
      .stop()
      .then(() => context.close())
      .then(() => process.exit(0));
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  await worker.run();
}

void main();
