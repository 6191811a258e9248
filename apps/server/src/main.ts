import 'reflect-metadata';
import { createApp } from './create-app';
import { readConfigOrExit } from './platform/config';

async function main(): Promise<void> {
  // Whatever is written is for this user alone.
  process.umask(0o077);
  const config = readConfigOrExit(process.env);
  const app = await createApp(config);
  await app.listen(config.PORT, config.HOST);
}

void main();
