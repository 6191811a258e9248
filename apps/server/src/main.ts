import 'reflect-metadata';
import { createApp } from './create-app';
import { readConfigOrExit } from './platform/config';

async function main(): Promise<void> {
  const config = readConfigOrExit(process.env);
  const app = await createApp(config);
  await app.listen(config.PORT, config.HOST);
}

void main();
