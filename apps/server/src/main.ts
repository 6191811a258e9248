import 'reflect-metadata';
import { createApp } from './create-app';
import { MailInService } from './inbound/mail-in.service';
import { readConfigOrExit } from './platform/config';

async function main(): Promise<void> {
  const config = readConfigOrExit(process.env);
  const app = await createApp(config);
  if (config.INBOUND_SMTP_PORT > 0) app.get(MailInService).listen(config.INBOUND_SMTP_PORT, config.HOST);
  await app.listen(config.PORT, config.HOST);
}

void main();
