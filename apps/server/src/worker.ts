import 'reflect-metadata';
import { constants, setPriority } from 'node:os';
import { NestFactory } from '@nestjs/core';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module';
import { readConfigOrExit } from './platform/config';
import { keepHeapSmall } from './platform/memory';
import { createWorker } from './create-worker';

async function main(): Promise<void> {
  // Whatever is written is for this user alone.
  process.umask(0o077);
  keepHeapSmall();
  // Whoever waits for a page goes before work that nobody waits for; processes begun by this one inherit it.
  setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
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
