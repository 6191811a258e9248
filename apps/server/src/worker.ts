import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import { readConfigOrExit } from './platform/config';
import { keepHeapSmall } from './platform/memory';
import { createWorker } from './create-worker';

async function main(): Promise<void> {
  keepHeapSmall();
  const config = readConfigOrExit(process.env);
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
