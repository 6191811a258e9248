import 'reflect-metadata';
import { createApp } from './create-app';
import { MailInService } from './inbound/mail-in.service';
import { readConfig, type Config } from './platform/config';

async function main(): Promise<void> {
  let config: Config;
  try {
    config = readConfig(process.env);
  } catch (error) {
    process.stderr.write(`${(error as Error).message}\n`);
    process.exit(78);
  }
  const app = await createApp(config);
  if (config.INBOUND_SMTP_PORT > 0) app.get(MailInService).listen(config.INBOUND_SMTP_PORT, config.HOST);
  await app.listen(config.PORT, config.HOST);
}

void main();
